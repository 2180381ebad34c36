import { unitsAt } from '../../item/elsewhere';
import { offeredUnits } from '../../item/movements';
import { ownValue } from '../../json';
import { formatMoney } from '../../measure/money';
import { toldGrams } from '../../measure/parcel';
import { isSamePrice, listingPrice } from '../../price/listing-price';
import { nameKey } from '../../rules/compiled';
import type { MarketRules } from '../../rules/rules';
import type { Content, Issue, Origin } from '../fields';
import { chosenPhotos, photoReferences } from '../fit/photos';
import { ownLimits } from '../fit/variations';
import { netInput } from '../net';
import { type Draft, type Part, unused } from './draft';

/** Whether a listing is sent from the marketplace's own warehouse: then what lies there is sold, and nothing else. */
export function isFromWarehouse(rules: Pick<MarketRules, 'fees'>, content: Content): boolean {
  const { handling } = rules.fees;
  return handling !== undefined && content[handling.field] === handling.value;
}

/** Units that an account may sell: those here, less its reserve, or those in the warehouse that sends for it. */
function sellable(draft: Draft, content: Content): number {
  const { item, account, rules } = draft;
  if (isFromWarehouse(rules, content)) return Math.max(0, unitsAt(item.elsewhere, 'there', account.id));
  const here = draft.variations ? draft.variations.rows.reduce((sum, row) => sum + row.quantity, 0) : item.quantity;
  const { reserve = 0, servedBy = null } = account.stock ?? {};
  const served = servedBy === null ? 0 : Math.max(0, unitsAt(item.elsewhere, 'there', servedBy));
  return offeredUnits(here, { reserve, cap: null }) + served;
}

/** @param content what is known of the listing already: who sends it */
export function quantity(draft: Draft, content: Content): Part {
  // What is put away is offered nowhere, however many there are.
  if (draft.item.standing !== 'active') return { value: 0, origin: 'fitted' };
  const { max } = draft.rules.quantity;
  const written = draft.override('quantity');
  // A cap for this marketplace lowers what is offered there, it never invents stock.
  const cap = typeof written === 'number' ? Math.min(written, max) : max;
  const offered = Math.min(sellable(draft, content), draft.account.stock?.cap ?? cap, cap);
  const origin: Origin =
    typeof written === 'number' && written < draft.item.quantity
      ? 'override'
      : offered === draft.item.quantity
        ? 'master'
        : 'fitted';
  return { value: offered, origin };
}

export function photos(draft: Draft): Part {
  const rule = draft.rules.photos;
  if (rule.kind === 'catalogue' || rule.max === 0) return unused;
  const all = draft.item.photos;
  const written = draft.override('photos');
  if (Array.isArray(written)) {
    const chosen = photoReferences(chosenPhotos(written, all), rule);
    return { value: chosen, origin: 'override', length: chosen.length, max: rule.max };
  }
  if (rule.kind === 'artwork' && draft.prints?.prints.length) {
    const files = [...new Set(draft.prints.files.values())];
    return { value: files, origin: 'template', length: files.length, max: files.length, how: 'printables' };
  }
  const large =
    rule.kind === 'artwork' ? all.filter((one) => Math.max(one.width, one.height) >= rule.minLongestSide) : all;
  const chosen = (large.length ? large : all).slice(0, rule.max);
  const references = photoReferences(chosen, rule);
  const left = all.length - chosen.length;
  const shaped = references.some((one) => one.includes('~'));
  return {
    value: references,
    origin: left || shaped ? 'fitted' : 'master',
    length: chosen.length,
    max: rule.max,
    lost: left ? [`${left} of ${all.length} photos`] : undefined,
  };
}

/** The item's clip, where one is taken; one of this account's own, or none, where that is said. */
export function clip(draft: Draft): Part {
  if (!draft.rules.clip) return unused;
  const written = draft.override('clip');
  return typeof written === 'string'
    ? { value: written, origin: 'override' }
    : { value: draft.item.clip, origin: 'master' };
}

/** The packed weight: what packing adds is counted, never rounded down. */
export function weight(draft: Draft): Part {
  if (!draft.rules.weight) return unused;
  const written = draft.override('weightGrams');
  if (written !== undefined) return { value: written, origin: 'override' };
  const { weightGrams } = draft.item;
  if (!weightGrams) return { value: weightGrams, origin: 'master' };
  const { packaging, parcels } = draft.account;
  const packed = toldGrams(draft.item, parcels.boxes, packaging);
  return { value: packed, origin: packed === weightGrams ? 'master' : 'fitted' };
}

export function size(draft: Draft): Part {
  if (!draft.rules.size) return unused;
  const written = draft.override('size');
  if (written !== undefined) return { value: written, origin: 'override' };
  const { lengthMm, widthMm, heightMm } = draft.item;
  const known = lengthMm !== null && widthMm !== null && heightMm !== null;
  return { value: known ? [lengthMm, widthMm, heightMm] : null, origin: 'master' };
}

/** An amount of the item as this account asks for it: by its rule, in its currency. Null when that cannot be said. */
function amountThere(draft: Draft, content: Content, amount: number): { price: number; how?: string } | null {
  const { item, account, rules } = draft;
  const holds = rules.price?.holds === true;
  if (isSamePrice(account.pricing, item.currency, rules.currency, holds)) return { price: amount };
  const made = listingPrice(amount, {
    pricing: account.pricing,
    rate: account.rate,
    needsRate: item.currency !== rules.currency,
    holds,
    // The free listings are not counted here: a price does not change because another listing was made.
    net: netInput(account, { ...content, size: size(draft).value }, item, 0),
  });
  return made && { price: made.price, how: made.because.join(', ') };
}

/** The price of the whole; with variations the one of the cheapest, where the item itself has none. */
function ownAmount(draft: Draft): number | null {
  const { item, variations, prints } = draft;
  if (prints) return prints.main?.price ?? item.price;
  const amounts = variations?.rows.flatMap((row) => (row.price === null ? [] : [row.price])) ?? [];
  if (variations && variations.axes.length === 0 && amounts.length === 1) return amounts[0] ?? null;
  return item.price ?? (amounts.length ? Math.min(...amounts) : null);
}

/** @param content what is known of the listing already: fees hang on category, weight and own fields */
export function price(draft: Draft, content: Content): Part {
  if (!draft.rules.price) return unused;
  const written = draft.override('price');
  if (written !== undefined) return { value: written, origin: 'override' };
  const amount = ownAmount(draft);
  if (amount === null) return { value: null, origin: 'master' };
  const there = amountThere(draft, content, amount);
  if (there && there.how === undefined) return { value: there.price, origin: 'master' };
  return { value: there?.price ?? null, origin: 'fitted', how: there?.how };
}

/** Prints of which the price is below what the marketplace takes for making them. */
function belowBase({ prints, rules }: Draft, rows: readonly { values: string[]; price: number | null }[]): Issue[] {
  const { bases } = rules.fees;
  if (!prints || !bases) return [];
  const list = rules.extras.find((one) => `extra.${one.id}` === bases.field)?.values ?? [];
  const below = rows.flatMap(({ values: [product = ''], price }): string[] => {
    const id = list.find((one) => nameKey(one.label) === nameKey(product))?.id;
    const base = id === undefined ? undefined : ownValue(bases.amounts, id);
    return base !== undefined && price !== null && price < base
      ? [`${product}: the price must be at least the base price of ${formatMoney(base, rules.currency)}`]
      : [];
  });
  return [...new Set(below)].map((message) => ({
    code: 'price-base',
    field: 'variations',
    message,
    blocks: true,
    fix: { kind: 'edit-template' as const, label: 'Raise it in the template' },
  }));
}

/** The combinations that are offered here, each with its price there. */
export function variations(draft: Draft, content: Content): Part {
  const fitted = draft.variations;
  if (!fitted)
    return draft.prints?.issues.length ? { value: null, origin: 'template', faults: draft.prints.issues } : unused;
  const narrowed = draft.override('variations') !== undefined;
  const faults = fitted.problem
    ? [
        {
          code: 'variations',
          field: 'variations',
          message: fitted.problem,
          blocks: true,
          fix: { kind: 'variations' as const, label: 'Choose what is offered here' },
        },
      ]
    : [...(draft.prints?.issues ?? [])];
  const limits = draft.prints ? (draft.rules.variations ?? null) : ownLimits(draft.rules);
  if (fitted.axes.length === 0 || !limits)
    return {
      value: null,
      origin: narrowed ? 'override' : faults.length ? 'master' : 'unused',
      ...(narrowed ? { how: 'one combination' } : {}),
      faults,
    };
  const written = draft.override('price');
  const rows = fitted.rows.map(({ ownPrice, ...row }) => {
    if (row.price === null) return row;
    // A price written for this marketplace moves every combination that follows the item's.
    const moved = typeof written === 'number' && !ownPrice && draft.item.price !== null;
    const there = moved
      ? written + row.price - (draft.item.price ?? 0)
      : (amountThere(draft, content, row.price)?.price ?? null);
    return { ...row, price: there };
  });
  faults.push(...belowBase(draft, rows));
  const all = draft.prints?.variations ?? draft.item.variations;
  const lost = all.length - rows.length;
  return {
    value: { axes: fitted.axes, rows },
    origin: narrowed ? 'override' : draft.prints ? 'template' : 'master',
    length: rows.length,
    max: limits.maxCombinations,
    faults,
    ...(lost ? { how: `${lost} switched off or left out` } : {}),
  };
}
