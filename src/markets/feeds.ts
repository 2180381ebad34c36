import { z } from 'zod';
import { NettingError } from '../core/errors';
import { aboutTheDay, retryAfterOf } from './session';

/** What came of one line of a feed or batch, as one of our errors where it was refused. */
export const lineSchema = z.looseObject({
  ok: z.boolean(),
  sentence: z.string().nullable().optional(),
  status: z.number().optional(),
  retryAfter: z.string().nullable().optional(),
  problems: z.array(z.object({ pointer: z.string(), detail: z.string() })).optional(),
});

/** A refused line as the error that the same answer to a single request would be. */
export function lineError(line: z.infer<typeof lineSchema>, marketName: string): NettingError {
  const details = (line.problems ?? []).map(({ pointer, detail }) => ({ field: pointer, message: detail }));
  const said = `${marketName}: ${(details[0]?.message ?? line.sentence ?? 'This line was refused').replace(/[<>]/g, '').slice(0, 300)}`;
  const retryAfterMs = retryAfterOf(line.retryAfter ?? null);
  if (line.status === 429 && aboutTheDay.test(said))
    return new NettingError('market-warned', said, { retryAfterMs: retryAfterMs ?? 3_600_000 });
  if (line.status === 429) return new NettingError('market-busy', said, { retryAfterMs });
  if (/locked|suspended/i.test(said) || line.status === 403)
    return new NettingError('market-locked', said, { retryAfterMs: retryAfterMs ?? 300_000 });
  if (line.status === 404 || /no such listing/i.test(said)) return new NettingError('not-found', said);
  if (line.status === 409 || /not live any more/i.test(said))
    return new NettingError('market-blocked', said, { fix: 'Settle it on the marketplace, then try again' });
  return new NettingError('market-refused', said, { details, field: details[0]?.field });
}
