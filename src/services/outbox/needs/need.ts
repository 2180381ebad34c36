import { z } from 'zod';
import { stepSchema } from '../../../core/edit';
import { filterSchema } from '../../../core/filter';

export const needSchema = z.object({
  /** The same for the same cause, whenever it is asked for. */
  need: z.string(),
  says: z.string(),
  /** What to do about it, in one sentence. */
  mend: z.string(),
  count: z.number(),
  /** The money in it, in minor units of the items' currency; null where that is not what it is about. */
  atStake: z.number().nullable(),
  /** Nothing else should be done before. */
  isUrgent: z.boolean(),
  /** The page on which it is mended; else the items, with the steps that are proposed for them. */
  page: z.string().nullable(),
  filter: filterSchema.nullable(),
  steps: z.array(stepSchema),
  /** Put off until then. */
  later: z.object({ until: z.string(), why: z.string(), byName: z.string() }).nullable(),
});
export type Need = z.infer<typeof needSchema>;
/** As it is found, before it is known whether somebody put it off. */
export type Found = Omit<Need, 'later'>;

/** A cause that is mended on a page of its own. */
export const page = (
  need: string,
  says: string,
  mend: string,
  path: string,
  { count, atStake = null }: { count: number; atStake?: number | null },
  isUrgent = false,
): Found => ({
  need,
  says,
  mend,
  count: Number(count),
  atStake: atStake === null ? null : Number(atStake),
  isUrgent,
  page: path,
  filter: null,
  steps: [],
});
