import type { Field } from '../field/field';
import type { Variation } from '../item/variations';
import type { Json } from '../json';
import type { DoneChange } from './change';

export type Inverse =
  | { kind: 'restore'; to: Json }
  /** Somebody changed it since: both values are said, and nothing is overwritten unseen. */
  | { kind: 'changed-since'; now: Json };

const units = (value: Json): number => (typeof value === 'number' ? value : 0);
const tableOf = (value: Json): Variation[] => (Array.isArray(value) ? (value as Variation[]) : []); // a table as it was stored
const withoutUnits = (rows: readonly Variation[]): Json => rows.map((row) => ({ ...row, quantity: 0 }));

/**
 * What takes a change back, seen from what is there now. Units are sums of movements: taking back moves the difference,
 * whatever was sold meanwhile, so that a sold unit never comes back. Anything else comes back when it still is what the
 * change left.
 */
export function invert(change: Pick<DoneChange, 'from' | 'to'>, now: Json, field: Field): Inverse {
  if (field.traits.ledger) {
    const restored = units(now) + units(change.from) - units(change.to);
    return restored < 0 ? { kind: 'changed-since', now } : { kind: 'restore', to: restored };
  }
  if (field.kind.is === 'combinations') return invertTable(change, now, field);
  return field.same(now, change.to) ? { kind: 'restore', to: change.from } : { kind: 'changed-since', now };
}

/** The table as it was, with the units of each combination moved back by what the change had moved. */
function invertTable(change: Pick<DoneChange, 'from' | 'to'>, now: Json, field: Field): Inverse {
  const [before, after, present] = [tableOf(change.from), tableOf(change.to), tableOf(now)];
  if (!field.same(withoutUnits(present), withoutUnits(after))) return { kind: 'changed-since', now };
  const find = (rows: Variation[], key: string) => rows.find((row) => row.key === key)?.quantity ?? 0;
  const restored = before.map((row) => ({
    ...row,
    quantity: row.key ? find(present, row.key) + row.quantity - find(after, row.key) : row.quantity,
  }));
  const gone = present.some((row) => !before.some((one) => one.key === row.key) && row.quantity > find(after, row.key));
  if (gone || restored.some((row) => row.quantity < 0)) return { kind: 'changed-since', now };
  return { kind: 'restore', to: restored };
}
