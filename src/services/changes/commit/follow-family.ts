import { inArray } from 'drizzle-orm';
import type { DoneChange, ItemRecord, Move, Refusal } from '../../../core/change';
import { movesBetween } from '../../../core/change';
import type { Item } from '../../../core/item';
import { oneStock, type PartOf } from '../../../core/kit';
import type { Executor } from '../../../db/client';
import { item } from '../../../db/schema';
import type { HeldFamily } from '../../records/items/hold-items';
import { itemRecord } from '../../records/items/item-record';
import { groupByItem } from '../../records/items/load-items';

/** What becomes of one item: as it was, as it is, and what that comes to. */
export type Work = {
  /** Its units follow from whole sets or parts that moved: nobody has said so of it, and it is taken back with them. */
  follows: boolean;
  before: Item;
  after: Item;
  overrides: ItemRecord['overrides'];
  meant: ItemRecord['meant'];
  changes: DoneChange[];
  moves: Move[];
};

/**
 * Whole sets and their parts are one stock: where units of one of them move, those of the others follow, and stand among
 * the work then. Of a set and a part of it that are changed in one go the part counts, and the set is refused.
 * @param work is added to, and rid of what is refused
 */
export async function followFamily(
  db: Executor,
  family: HeldFamily | null,
  work: Work[],
  { mayGoBelowZero = false }: { mayGoBelowZero?: boolean },
): Promise<Refusal[]> {
  if (!family || family.relations.length === 0) return [];
  const { relations } = family;
  const refused: Refusal[] = [];
  const refuse = (id: number, why: string) => {
    const at = work.findIndex((one) => one.before.id === id);
    if (at >= 0) work.splice(at, 1);
    refused.push({ item: id, field: 'quantity', kind: 'invalid', why });
  };
  const known = await unitsOf(db, family, relations);
  for (const one of work.filter(hasMoved))
    if (
      partsBelow(one.before.id, relations).some((part) =>
        work.some((other) => other.before.id === part && hasMoved(other)),
      )
    )
      refuse(one.before.id, 'A part of it is changed in the same go: whole sets follow from their parts');
  for (;;) {
    const now = settle(work, relations, known);
    const short = mayGoBelowZero
      ? undefined
      : [...now].find(([id, units]) => units < 0 && units < (known.units.get(id) ?? 0));
    const taker =
      short &&
      work.find((one) => hasMoved(one) && unitsGone(one) && partsBelow(one.before.id, relations).includes(short[0]));
    if (!taker) {
      write(family, work, now);
      return refused;
    }
    refuse(taker.before.id, 'One of its parts is not there so often');
  }
}

const hasMoved = ({ before, after }: Work) => before.quantity !== after.quantity;
const unitsGone = ({ before, after }: Work) => after.quantity < before.quantity;

function partsBelow(id: number, relations: readonly PartOf[]): number[] {
  const below = new Set<number>();
  const open = [id];
  for (let next = open.pop(); next !== undefined; next = open.pop())
    for (const { set, part } of relations)
      if (set === next && !below.has(part)) {
        below.add(part);
        open.push(part);
      }
  return [...below];
}

type Units = { units: Map<number, number>; lacking: Set<number> };

/** What there is of everything that the relations name; of parts that nobody holds as it was committed last. */
async function unitsOf(db: Executor, { items }: HeldFamily, relations: readonly PartOf[]): Promise<Units> {
  const held = new Map(items.map((one) => [one.id, one]));
  const others = [...new Set(relations.flatMap(({ set, part }) => [set, part]))].filter((id) => !held.has(id));
  const rows = others.length
    ? await db
        .select({ id: item.id, quantity: item.quantity, standing: item.standing })
        .from(item)
        .where(inArray(item.id, others))
    : [];
  const all = [...items, ...rows];
  return {
    units: new Map(all.map((one) => [one.id, one.quantity])),
    lacking: new Set(all.filter((one) => one.standing !== 'active').map((one) => one.id)),
  };
}

function settle(work: readonly Work[], relations: readonly PartOf[], { units, lacking }: Units): Map<number, number> {
  const moved = new Map(work.map(({ before, after }) => [before.id, after.quantity - before.quantity]));
  const gone = new Set(lacking);
  for (const { after } of work)
    if (after.standing === 'active') gone.delete(after.id);
    else gone.add(after.id);
  return oneStock(relations, units, moved, gone);
}

function write(family: HeldFamily, work: Work[], now: ReadonlyMap<number, number>): void {
  const rowsOf = groupByItem(family.listings);
  for (const one of family.items) {
    const to = now.get(one.id);
    const there = work.find((other) => other.before.id === one.id);
    if (to === undefined || to === (there?.after.quantity ?? one.quantity)) continue;
    const record = itemRecord(one, rowsOf.get(one.id) ?? []);
    const entry: Work = there ?? {
      follows: true,
      before: one,
      after: one,
      overrides: record.overrides,
      meant: record.meant,
      changes: [],
      moves: [],
    };
    if (!there) work.push(entry);
    if (!hasMoved(entry)) entry.follows = true;
    entry.after = { ...entry.after, quantity: to };
    entry.moves = movesBetween(entry.before, entry.after);
    entry.changes = [
      ...entry.changes.filter((change) => change.field !== 'quantity' || change.target.combination !== undefined),
      { target: { item: one.id }, field: 'quantity', from: one.quantity, to },
    ];
  }
}
