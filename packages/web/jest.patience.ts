/**
 * How long a test waits for what a screen will show. The library's own second is too short beside other work:
 * the checks of the demo alone take longer on a slow machine. What is there is found at once all the same.
 */
import { configure } from '@testing-library/dom';

configure({ asyncUtilTimeout: 15_000 });
