import { z } from 'zod';

export const fixAllSchema = z
  .object({
    accountId: z.number().int().positive(),
    code: z.string().max(60),
    field: z.string().max(80),
    message: z.string().max(400),
    /** What was chosen or written, where the mend needs it. */
    value: z.string().max(300).optional(),
    /** Also send what differs then from what is live. */
    send: z.boolean().default(false),
  })
  .strict();

export type FixAll = z.infer<typeof fixAllSchema>;

/** What is seen before it is done: the same, without sending. */
export const fixSeenSchema = fixAllSchema.omit({ send: true });
export type FixSeen = z.infer<typeof fixSeenSchema>;
