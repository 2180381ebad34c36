import type { Change } from '../../core/change';
import { type AfarPlace, type Item, type MovementReason, withUnits } from '../../core/item';
import type { Tx } from '../../db/client';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';

/** Units that go from one place to another; `nowhere`: they are gone. */
export type UnitsMove = {
  actor: Actor;
  account: number;
  /** Item → units. */
  units: ReadonlyMap<number, number>;
  from: 'here' | AfarPlace;
  to: 'here' | AfarPlace | 'nowhere';
  reason: MovementReason;
  note?: string;
  /** What else becomes different of each item by that. */
  also?: (item: Item, units: number) => Change[];
};

/** Moves units in the ledger, all of them or none; of what is not there so many it is said. */
export async function moveUnits(tx: Tx, move: UnitsMove): Promise<void> {
  const { account, units, from, to } = move;
  const meant = [...units].filter(([, count]) => count !== 0);
  if (meant.length === 0) return;
  allCommitted(
    await commitItems(
      tx,
      meant.map(([id]) => id),
      ({ items }) => items.flatMap((item) => changesOf(item, units.get(item.id) ?? 0, move)),
      {
        actor: move.actor,
        why: 'warehouse',
        at: new Date(),
        // Whoever sells from here, or from there, is told.
        send: 'stock',
        stock: { reason: move.reason, note: move.note?.slice(0, 200) ?? null, mayGoBelowZero: from !== 'here' },
      },
    ),
  );

  function changesOf(item: Item, count: number, { also }: UnitsMove): Change[] {
    const target = { item: item.id };
    const here = (from === 'here' ? -count : 0) + (to === 'here' ? count : 0);
    let elsewhere = item.elsewhere;
    if (from !== 'here') elsewhere = withUnits(elsewhere, from, account, -count);
    if (to !== 'here' && to !== 'nowhere') elsewhere = withUnits(elsewhere, to, account, count);
    return [
      ...(here === 0 ? [] : [{ target, field: 'quantity', to: item.quantity + here }]),
      { target, field: 'elsewhere', to: elsewhere },
      ...(also?.(item, count) ?? []),
    ];
  }
}
