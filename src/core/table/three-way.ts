import type { Field } from '../field/field';
import type { Json } from '../json';

/** What comes of one cell: a value when it was written out, the value now, and the value that a file holds. */
export type Verdict =
  | { kind: 'same' }
  /** Changed in the file alone. */
  | { kind: 'apply'; to: Json }
  /** Changed here since, and not in the file: an old file undoes nothing. */
  | { kind: 'kept' }
  /** Changed on both sides: somebody decides. */
  | { kind: 'conflict'; exported: Json; now: Json; to: Json };

/**
 * Compares three values of a field.
 * @param exported undefined when it is not known what the file held at first: then what differs is applied
 */
export function threeWay({ same }: Pick<Field, 'same'>, exported: Json | undefined, now: Json, file: Json): Verdict {
  if (same(file, now)) return { kind: 'same' };
  if (exported === undefined || same(exported, now)) return { kind: 'apply', to: file };
  if (same(file, exported)) return { kind: 'kept' };
  return { kind: 'conflict', exported, now, to: file };
}

/** Units that a file says: as the number there is, or as so many more; what results is said before. */
export const unitsAfter = (now: number, file: number, how: 'set' | 'add'): number =>
  how === 'add' ? now + file : file;
