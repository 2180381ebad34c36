import { z } from 'zod';

const madeFromSchema = z
  .object({
    original: z.string().regex(/^[0-9a-f]{64}$/),
    place: z.number().int().min(0).max(59).nullable(),
    recipe: z.record(z.string().max(40), z.json()),
  })
  .strict();

/** The header X-Made-From: JSON, percent-encoded. */
export const madeFrom = (header: string | null) =>
  header === null ? undefined : madeFromSchema.parse(JSON.parse(decodeURIComponent(header)));
