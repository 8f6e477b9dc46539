import { fonts } from '@visograph/drawing';
import { css } from 'styled-components';

/** For names, ports, addresses, labels and numbers: 0 and O, 1 and l keep apart, figures stand below each other. */
export const mono = css`
  font-family: ${fonts.mono};
  font-variant-numeric: tabular-nums;
`;
