import { applyChanges, type Change, type DoneChange, type ItemRecord, isMeant, isTarget } from '../change';
import { type Catalogue, type Field, fieldValue } from '../field';
import type { Item, Photo } from '../item/item';
import { type Axis, regenerate, type Variation } from '../item/variations';
import { type Json, ownValue } from '../json';
import { toPlainText } from '../listing/fit/plain-text';
import { variablesOf } from '../listing/template/render';
import { type Box, boxFor } from '../measure/parcel';
import type { RoundingName } from '../measure/rounding';
import { keptChoice, remadeBy } from '../photo/kept-places';
import type { PhotoKnowledge } from '../photo/known';
import type { Term } from '../wording/term';
import { engines } from './engines';
import { fieldOf, type Step } from './step';
import { applyVerb, isFor, type WantedNet } from './verbs';
import type { SoldFor, SuggestedCategory, VerbContext } from './verbs/verb';

export type StepContext = {
  catalogue: Catalogue;
  /** ISO 4217 code of the item's amounts. */
  currency: string;
  /** What an account gets of an item as it is by then, without what is written for it alone. */
  listed(record: ItemRecord, account: number, field: string): Json | undefined;
  /** A field of an account's listings, as that marketplace's rules have it. */
  listingField(account: number, field: string): Field | undefined;
  currencyOf(account: number): string;
  /** An amount of the item's currency in an account's; null while no rate is known. */
  amountThere(account: number, amount: number): number | null;
  /** The lowest price of an item on an account that leaves what is wanted; null when none does. */
  priceFor(record: ItemRecord, account: number, goal: WantedNet, rounding: RoundingName, floor: number): number | null;
  /** The boxes that one owns. */
  boxes: readonly Box[];
  /** What category an item has on an account, as far as that can be told from the item. */
  suggestedCategory(item: Item, account: number): SuggestedCategory | null;
  /** One's own terms in an account's language; null where it has none of its own. */
  termsOf(account: number): readonly Term[] | null;
  /** What is known of the items' pictures, and of those that steps name. */
  photos?: PhotoKnowledge;
  /** What such things sold for in so many days up to now. */
  soldFor(item: Item, days: number): SoldFor | null;
};

/** What steps make of an item: its changes, none where nothing becomes different; or why it stays as it is. */
export type StepsResult = { changes: DoneChange[]; record: ItemRecord } | { refused: string; field: string };

type Place = { change: Pick<Change, 'target' | 'field'>; field: Field; now: Json; currency: string; account?: number };

/** The places that a step works on, of this item. */
function placesOf(step: Step, record: ItemRecord, context: StepContext): Place[] {
  const { item, overrides } = record;
  const { where } = step;
  if (where.on === 'item') {
    const field = fieldOf(step, context.catalogue);
    if (!field) return [];
    const change = { target: { item: item.id }, field: step.field };
    return [{ change, field, now: fieldValue(item, step.field), currency: context.currency }];
  }
  if (where.on === 'combinations') {
    const field = fieldOf(step, context.catalogue);
    if (!field) return [];
    const isMeant = (values: readonly string[]) =>
      Object.entries(where.of).every(([axis, wanted]) => {
        const at = item.axes.findIndex((one) => one.name === axis);
        return at >= 0 && wanted.includes(values[at] ?? '');
      });
    return item.variations
      .filter((one) => isMeant(one.values))
      .map((one) => ({
        change: { target: { item: item.id, combination: one.key }, field: step.field },
        field,
        now: (one as unknown as Record<string, Json>)[step.field] ?? field.empty, // a combination holds JSON values only
        currency: context.currency,
      }));
  }
  const accounts =
    where.on === 'accounts'
      ? where.accounts.filter((id) => overrides.has(id) || step.field === 'target')
      : [...overrides].flatMap(([id, own]) => (Object.hasOwn(own, step.field) ? [id] : []));
  return accounts.flatMap((account): Place[] => {
    const field = context.listingField(account, step.field);
    if (!field) return [];
    const own = ownValue(overrides.get(account) ?? {}, step.field);
    const change = { target: { item: item.id, account }, field: step.field };
    const now = isTarget(change)
      ? isMeant(record, account)
      : (own ?? context.listed(record, account, step.field) ?? field.empty);
    return [{ change, field, now, currency: context.currencyOf(account), account }];
  });
}

/** Another field of the place: of what the account gets, or of the item. */
function otherField(record: ItemRecord, place: Place, context: StepContext) {
  return (id: string): Json | undefined => {
    const { account } = place;
    if (account !== undefined) {
      const own = ownValue(record.overrides.get(account) ?? {}, id);
      const listed = own ?? context.listed(record, account, id);
      if (listed !== undefined) return listed;
    }
    return context.catalogue.item(id) ? fieldValue(record.item, id) : undefined;
  };
}

/** What a pattern may speak of: the item as it is by then; of rich text in HTML. */
const variablesAt =
  (record: ItemRecord, { field }: Place) =>
  () => {
    const { item } = record;
    const isRich = field.kind.is === 'rich';
    return variablesOf(item, '', isRich ? item.description : toPlainText(item.description), isRich ? 'rich' : 'plain');
  };

const priceAt = (
  record: ItemRecord,
  { account, change }: Place,
  context: StepContext,
): Pick<VerbContext, 'priceFor'> =>
  account === undefined || change.field !== 'price'
    ? {}
    : { priceFor: (goal, rounding, floor) => context.priceFor(record, account, goal, rounding, floor) };

const thereOf = ({ account }: Place, context: StepContext): Pick<VerbContext, 'there'> =>
  account === undefined ? {} : { there: (amount) => context.amountThere(account, amount) };

const proposedAt = (
  { item }: ItemRecord,
  { account }: Place,
  context: StepContext,
): Pick<VerbContext, 'box' | 'suggested' | 'sold' | 'terms'> => {
  const { lengthMm, widthMm, heightMm } = item;
  return {
    box: () => (lengthMm && widthMm && heightMm ? boxFor([lengthMm, widthMm, heightMm], context.boxes) : null),
    // Sales are compared in the item's own currency; an account's price follows from its price.
    ...(account === undefined ? { sold: (days: number) => context.soldFor(item, days) } : {}),
    ...(account === undefined
      ? {}
      : { suggested: () => context.suggestedCategory(item, account), terms: () => context.termsOf(account) }),
  };
};

/** The table that follows from other axes; refused where units would be left without a combination. */
function tableOf(item: Item, axes: readonly Axis[]): { rows: Variation[] } | { refused: string } {
  const units = (rows: readonly Variation[]) => rows.reduce((sum, row) => sum + row.quantity, 0);
  const rows = axes.length ? regenerate(axes, item.variations) : [];
  const before = item.axes.length ? units(item.variations) : axes.length ? item.quantity : 0;
  const lost = before - units(rows);
  return lost > 0
    ? { refused: `${lost} in stock would belong to no combination: give them to others first` }
    : { rows };
}

/** Pictures that changes name, besides the item's own. */
const photosIn = (changes: readonly Change[], { photos }: StepContext): Photo[] =>
  photos === undefined
    ? []
    : changes.flatMap(({ target, field, to }) =>
        field === 'photos' && target.account === undefined && Array.isArray(to)
          ? to.flatMap((one): Photo[] => {
              const known = photos.at(String(one));
              return known ? [{ hash: known.hash, width: known.width, height: known.height }] : [];
            })
          : [],
      );

/** What accounts chose of photos that were made anew: each keeps its place and is made of what it is by then. */
function followed(
  { item, overrides }: ItemRecord,
  became: ReadonlyMap<string, string>,
  photos: PhotoKnowledge | undefined,
): Change[] {
  return [...overrides].flatMap(([account, own]): Change[] => {
    const { photos: chosen } = own;
    const kept = Array.isArray(chosen) ? keptChoice(chosen, became, photos && remadeBy(photos)) : null;
    return kept ? [{ target: { item: item.id, account }, field: 'photos', to: kept }] : [];
  });
}

/**
 * A series of steps on one item, each seeing the result of those before. When one is refused the item stays as it is, so
 * that nobody gets half of a change. Pure; what it says is carried out by the one writer.
 */
export function applySteps(steps: readonly Step[], record: ItemRecord, context: StepContext): StepsResult {
  let current = record;
  let done: StepsResult = { changes: [], record };
  let rounds = 0;
  const last = new Map<string, Change>();
  const options = { catalogue: context.catalogue, newKey: () => '' };
  for (const step of steps) {
    const made: Change[] = [];
    const places = placesOf(step, current, context);
    const first = step.where.on === 'combinations' ? { first: places[0]?.now } : {};
    for (const place of places) {
      if (step.do.verb === 'follow') {
        made.push({ ...place.change });
        continue;
      }
      if (!isFor(step.do.verb, place.field))
        return { refused: `${place.field.label} has no such change there`, field: place.field.label };
      const outcome = applyVerb(step.do, place.now, {
        field: place.field,
        currency: place.currency,
        ...thereOf(place, context),
        fieldAt: otherField(current, place, context),
        engines,
        ...first,
        variables: variablesAt(current, place),
        ...priceAt(current, place, context),
        ...proposedAt(current, place, context),
        ...(place.field.kind.is === 'photos' || place.field.kind.is === 'clip' ? { photos: context.photos } : {}),
      });
      if ('refused' in outcome) return { refused: outcome.refused, field: place.field.label };
      if (place.field.same(outcome.to, place.now)) continue;
      // A marketplace's own kinds are held here: the record itself takes whatever was written for an account.
      const checked = place.field.schema.safeParse(outcome.to);
      if (!checked.success)
        return {
          refused: checked.error.issues[0]?.message ?? 'This cannot stand here',
          field: place.field.label,
        };
      made.push({ ...place.change, to: outcome.to });
      if (outcome.became) made.push(...followed(current, new Map(outcome.became), context.photos));
      if (place.field.kind.is === 'axes') {
        const table = tableOf(current.item, outcome.to as Axis[]); // passed the field's schema
        if ('refused' in table) return { refused: table.refused, field: place.field.label };
        made.push({ target: place.change.target, field: 'variations', to: table.rows as unknown as Json }); // rows are JSON
      }
    }
    if (made.length === 0) continue;
    const applied = applyChanges(current, made, { ...options, photos: photosIn(made, context) });
    if ('refused' in applied) return { refused: applied.refused.why, field: applied.refused.field };
    current = applied.record;
    done = { changes: applied.changes, record: current };
    rounds++;
    for (const one of made) {
      last.set(`${one.target.account ?? ''}/${one.target.combination ?? ''}/${one.field}`, one);
    }
  }
  if (rounds < 2) return done;
  // What one step did another may have taken back.
  const lasting = [...last.values()];
  const applied = applyChanges(record, lasting, { ...options, photos: photosIn(lasting, context) });
  if ('refused' in applied) return { refused: applied.refused.why, field: applied.refused.field };
  return { changes: applied.changes, record: applied.record };
}

/** A change as the one writer takes it: an override that became nothing again follows the item. */
export const asChange = ({ changes, record }: Extract<StepsResult, { changes: unknown }>): Change[] =>
  changes.map(({ target, field, to }) => {
    const own = target.account === undefined ? undefined : record.overrides.get(target.account);
    const follows = target.account !== undefined && !isTarget({ target, field }) && !Object.hasOwn(own ?? {}, field);
    return follows ? { target, field } : { target, field, to };
  });
