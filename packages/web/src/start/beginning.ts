import { useLocation } from 'react-router';
import { z } from 'zod';

const schema = z.object({ typed: z.boolean().optional(), importing: z.boolean().optional() });
/** What of a section is to be open when it is gone to from the start of an empty project. */
export type Beginning = z.infer<typeof schema>;

/** What the section that was gone to begins with; nothing where it was gone to otherwise. */
export const useBeginning = (): Beginning => schema.safeParse(useLocation().state).data ?? {};
