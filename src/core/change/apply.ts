import type { Catalogue } from '../field/catalogue';
import type { Field } from '../field/field';
import { fieldValue, withFieldValue } from '../field/item-values';
import type { Item, Photo } from '../item/item';
import { type Variation, variationFaults } from '../item/variations';
import { type Json, ownValue } from '../json';
import type { Overrides } from '../listing/context';
import { readPhotoReference } from '../photo/reference';
import type { Change, DoneChange, Refusal, RefusalKind } from './change';
import { keyed } from './keys';
import { type Move, movesBetween, onHand } from './movements';
import { followNarrowings } from './narrowings';
import { ownFaults } from './own-faults';

/** An item with what is written for each account alone. */
export type ItemRecord = {
  item: Item;
  overrides: ReadonlyMap<number, Overrides>;
  /** Whether it is meant for an account; where it is `live` or `busy`, on its way there, it cannot be left out. */
  meant?: ReadonlyMap<number, Meant>;
};
export type Meant = 'yes' | 'no' | 'live' | 'busy';

/** Why an item is not left out on an account. */
export const boundBy = {
  live: 'It is live there; end it before leaving it out',
  busy: 'Something is on its way there for this item',
};

export type ApplyOptions = {
  catalogue: Catalogue;
  /** A key for a new combination, never given before. */
  newKey: () => string;
  /** Photos besides the item's own that a change may name. */
  photos?: readonly Photo[];
  /** More may go than is there: what was sold is gone, however it was counted. */
  mayGoBelowZero?: boolean;
};

export type Applied = {
  record: ItemRecord;
  /** What became different, each with what it was; empty when nothing did. */
  changes: DoneChange[];
  moves: Move[];
};

const refuse = (change: Change, kind: RefusalKind, why: string, now?: Json): { refused: Refusal } => ({
  refused: { item: change.target.item, field: change.field, kind, why, ...(now === undefined ? {} : { now }) },
});

/** One change seen by what it is of: where its value stands now, and the record with another one. */
type Slot = { field: Field; now: Json; put(value: Json | undefined): ItemRecord };

function combinationSlot(record: ItemRecord, change: Change, { catalogue }: ApplyOptions): Slot | string {
  const { item } = record;
  const field = catalogue.combination(change.field);
  const row = item.variations.find((one) => one.key === change.target.combination);
  if (!field) return 'There is no such field';
  if (!row) return 'This combination is gone';
  return {
    field,
    now: (row as unknown as Record<string, Json>)[change.field] ?? field.empty, // a combination holds JSON values only
    put: (value) => ({
      ...record,
      item: {
        ...item,
        variations: item.variations.map((one) =>
          one === row ? { ...one, [change.field]: value ?? field.empty } : one,
        ),
      },
    }),
  };
}

/** A choice of photos in which what was made for this account alone is named as it is known there. */
function withMade(chosen: Json | undefined, before: Json | undefined): Json | undefined {
  if (!Array.isArray(chosen) || !Array.isArray(before)) return chosen;
  const made = new Map(
    before.flatMap((one) => {
      const read = readPhotoReference(String(one));
      return read.made ? [[read.hash, one] as const] : [];
    }),
  );
  return made.size === 0 ? chosen : chosen.map((one) => made.get(String(one)) ?? one);
}

function overrideSlot(record: ItemRecord, change: Change, account: number, { catalogue }: ApplyOptions): Slot | string {
  const field = catalogue.listing(change.field);
  if (!field) return 'There is no such field';
  if (change.field === 'sku') return 'The stock number is the same everywhere';
  const own = record.overrides.get(account) ?? {};
  return {
    field,
    now: ownValue(own, change.field) ?? null,
    put(value) {
      const { [change.field]: _old, ...rest } = own;
      const named = field.kind.is === 'photos' ? withMade(value, own.photos) : value;
      const overrides = named === undefined ? rest : { ...own, [change.field]: named };
      return { ...record, overrides: new Map([...record.overrides, [account, overrides]]) };
    },
  };
}

function targetSlot(record: ItemRecord, change: Change, account: number, { catalogue }: ApplyOptions): Slot | string {
  const field = catalogue.listing(change.field);
  if (!field || change.to === undefined) return 'An item is meant for an account, or it is left out there';
  const now = isMeant(record, account);
  const meant = record.meant?.get(account);
  const isBound = meant === 'live' || meant === 'busy';
  if (isBound && change.to !== true) return boundBy[meant];
  return {
    field,
    now,
    put: (value) => ({
      ...record,
      meant: new Map([...(record.meant ?? []), [account, value !== true ? 'no' : isBound ? meant : 'yes']]),
    }),
  };
}

/** Whether an item is meant for an account. */
export const isMeant = ({ meant }: Pick<ItemRecord, 'meant'>, account: number): boolean =>
  (meant?.get(account) ?? 'no') !== 'no';

function itemSlot(record: ItemRecord, change: Change, options: ApplyOptions): Slot | string {
  const { item } = record;
  const field = options.catalogue.item(change.field);
  if (!field) return 'There is no such field';
  if (change.field === 'quantity' && item.axes.length) return 'Its stock is counted by its variations';
  return {
    field,
    now: fieldValue(item, change.field),
    put: (value) => ({
      ...record,
      item: withFieldValue(item, change.field, value ?? field.empty, [...(options.photos ?? [])]),
    }),
  };
}

/** Whether a change says for which account an item is meant, and nothing of what is written there. */
export const isTarget = ({ target, field }: Pick<Change, 'target' | 'field'>): boolean =>
  field === 'target' && target.account !== undefined;

const slotOf = (record: ItemRecord, change: Change, options: ApplyOptions): Slot | string =>
  change.target.combination !== undefined
    ? combinationSlot(record, change, options)
    : change.target.account !== undefined
      ? (isTarget(change) ? targetSlot : overrideSlot)(record, change, change.target.account, options)
      : itemSlot(record, change, options);

/** What is wrong with a value, whichever way it came. */
function faultOf(field: Field, value: Json, now: Json, options: ApplyOptions): string | null {
  if (field.traits.ledger && typeof value === 'number' && value < 0 && !options.mayGoBelowZero)
    return `Only ${String(now)} in stock, ${Number(now) - value} cannot be taken away`;
  const checked = field.schema.safeParse(value);
  return checked.success ? null : (checked.error.issues[0]?.message ?? 'This cannot stand here');
}

const placeOf = ({ target: { item, account, combination }, field }: Change) =>
  `${item}/${account ?? ''}/${combination ?? ''}/${field}`;

/**
 * Carries changes of one item out, all of them or none. Pure: it says what the item, what is written for the accounts
 * and the stock ledger become.
 */
export function applyChanges(
  record: ItemRecord,
  changes: readonly Change[],
  options: ApplyOptions,
): Applied | { refused: Refusal } {
  const before = record.item;
  let now = record;
  const slots = new Map<string, { change: Change; field: Field; from: Json }>();
  for (const change of changes) {
    const slot = slotOf(now, change, options);
    if (typeof slot === 'string') return refuse(change, 'invalid', slot);
    const { field } = slot;
    if (change.from !== undefined && !field.same(slot.now, change.from))
      return refuse(change, 'conflict', 'It was changed meanwhile', slot.now);
    let to = change.to;
    if (to !== undefined) {
      const fault = faultOf(field, to, slot.now, options);
      if (fault) return refuse(change, 'invalid', fault);
      if (change.field === 'own' && change.target.account === undefined) {
        const [own] = ownFaults(to, options.catalogue);
        if (own) return refuse({ ...change, field: own.field }, 'invalid', own.message);
      }
      if (field.kind.is === 'combinations')
        to = keyed(to as Variation[], now.item.variations, options.newKey) as unknown as Json; // passed the field's schema
    }
    const place = placeOf(change);
    if (!slots.has(place)) slots.set(place, { change, field, from: slot.now });
    now = slot.put(to);
  }
  const table = changes.find((one) => one.field === 'axes' || one.field === 'variations');
  const { axes, variations } = now.item;
  if (table && table.target.account === undefined) {
    const [fault] = variationFaults(axes, variations);
    if (fault) return refuse({ ...table, field: 'variations' }, 'invalid', fault);
  }
  for (const [account, to] of followNarrowings(before, now.item, now.overrides)) {
    const change: Change = { target: { item: before.id, account }, field: 'variations', to };
    const slot = overrideSlot(now, change, account, options);
    if (typeof slot === 'string') continue;
    const place = placeOf(change);
    if (!slots.has(place)) slots.set(place, { change, field: slot.field, from: slot.now });
    now = slot.put(to);
  }
  const after: Item = { ...now.item, quantity: onHand(now.item) };
  const done = [...slots.values()].flatMap(({ change, field, from }): DoneChange[] => {
    const slot = slotOf({ ...now, item: after }, change, options);
    const to = typeof slot === 'string' ? from : slot.now;
    return field.same(from, to) && !(change.target.account !== undefined && isNewly(record, now, change))
      ? []
      : [{ target: change.target, field: change.field, from, to }];
  });
  return { record: { ...now, item: after }, changes: done, moves: movesBetween(before, after) };
}

/** Written for an account as nothing, or not written there any more: not the same, though both are read as nothing. */
function isNewly(before: ItemRecord, after: ItemRecord, { target, field }: Change): boolean {
  const has = ({ overrides }: ItemRecord) => Object.hasOwn(overrides.get(target.account ?? 0) ?? {}, field);
  return has(before) !== has(after);
}
