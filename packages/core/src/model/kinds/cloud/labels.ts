import { z } from 'zod';
import { inKeyOrder, noted } from '../../fields/field.ts';

/** How many labels one thing may carry. */
export const mostLabels = 30;

/** Labels of key and value, such as `cost-centre: 4410`; those of a device are its own fields. */
export const labelsField = noted(
  z
    .record(z.string().min(1, 'has an empty key').max(40), z.string().max(200))
    .overwrite(inKeyOrder)
    .refine((labels) => Object.keys(labels).length <= mostLabels, `are more than ${mostLabels}`),
  { label: 'Labels', internal: true, help: 'Key and value, such as cost-centre: 4410' },
);
