import { z } from 'zod';

/** How a word or a phrase of ours is called in another language. */
export const termSchema = z
  .object({ from: z.string().trim().min(1).max(120), to: z.string().trim().min(1).max(200) })
  .strict();
export type Term = z.infer<typeof termSchema>;
