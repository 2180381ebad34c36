import { ownValue } from '../json';
import { amountIn, convert, type Rate } from '../measure/index';
import { type Parcel, parcelOf, type Thing, toldGrams } from '../measure/parcel';
import { type Net, type NetInput, netOf, packingOf } from '../price/index';
import { homeBand, type Quote, quotes } from '../price/postage';
import { readTier } from '../price/tiers';
import { carrierField, type MarketRules } from '../rules/index';
import type { AccountContext } from './context';
import type { Content } from './fields';

/** What the net of an item hangs on besides the listing: amounts in the shop's own currency, the thing bare. */
export type NetThing = Thing & { cost: number | null };

/** An account as far as nets hang on it. */
export type NetShop = Pick<AccountContext, 'rate' | 'packaging' | 'packing' | 'parcels'> & {
  compiled: { rules: MarketRules };
};

/** An amount of the shop's own currency there; as it stands while no rate is known, since no price is made then. */
export const amountThere = <T extends number | null>(amount: T, rate: Rate | null): T =>
  (amount === null || rate === null ? amount : convert(amount, rate)) as T; // null stays null, a number a number

/** True when the seller pays the postage out of the price: the marketplace wants it so, or this listing says so. */
export const sellerPays = (rules: MarketRules, content: Content): boolean =>
  rules.price?.holds === true ||
  (rules.sellerPaysWhen !== null && ownValue(content, rules.sellerPaysWhen.field) === rules.sellerPaysWhen.value);

/** The ids of the listing's fields that its net hangs on, besides its price. */
export const netFields = ({ fees, sellerPaysWhen }: MarketRules): string[] =>
  [
    'category',
    'weightGrams',
    'size',
    sellerPaysWhen?.field,
    fees.when?.field,
    fees.advertisingField,
    fees.handling?.field,
    fees.bases?.field,
    fees.labels.length > 0 ? undefined : carrierField,
  ].filter((field) => field !== undefined);

/**
 * What the carrier of the listing asks for the parcel in the country, in the account's currency; the cheapest where none is
 * said, or the said one does not take it. Null where no quote is known.
 */
function quoteThere(shop: NetShop, parcel: Parcel, content: Content): number | null {
  const quote = quoteOf(shop, parcel, content);
  return quote && amountIn(quote.amount, shop.compiled.rules.currency, shop.rate);
}

function quoteOf({ parcels }: NetShop, { grams, sides }: Parcel, content: Content): Quote | null {
  if (grams === 0) return null;
  const all = quotes(parcels.tariffs, { grams, sides, band: homeBand });
  const carrier = ownValue(content, carrierField);
  return all.find((one) => one.carrier === carrier) ?? all[0] ?? null;
}

/** With whom the parcel is reckoned to go, where the seller pays for that and the marketplace sells no labels. */
export function carrierThere(shop: NetShop, content: Content, thing: Thing): Quote | null {
  const { rules } = shop.compiled;
  if (rules.fees.labels.length > 0 || !sellerPays(rules, content)) return null;
  return quoteOf(shop, parcelOf(thing, shop.parcels.boxes, shop.packaging), content);
}

/**
 * Everything but the price that the net of a listing hangs on: the one place where it is gathered, for every screen.
 * @param content what the listing holds, as far as fees hang on it
 */
export function netInput(
  shop: NetShop,
  content: Content,
  thing: NetThing,
  liveCount: number,
): Omit<NetInput, 'price'> & { categoryId: string | null } {
  const { rules } = shop.compiled;
  const told = content.weightGrams;
  const weightGrams = typeof told === 'number' ? told : toldGrams(thing, shop.parcels.boxes, shop.packaging);
  const sides = Array.isArray(content.size) ? content.size : [thing.lengthMm, thing.widthMm, thing.heightMm];
  const longest = Math.max(0, ...sides.map(Number));
  const pays = sellerPays(rules, content);
  const sellsLabels = rules.fees.labels.length > 0;
  // Asked for by few: this is done some hundred thousand times for a change of many.
  const parcel = () => parcelOf(thing, shop.parcels.boxes, shop.packaging);
  return {
    fees: rules.fees,
    cost: amountThere(thing.cost, shop.rate),
    categoryId: typeof content.category === 'string' ? content.category : null,
    liveCount,
    weightGrams,
    longestMm: longest || null,
    values: content,
    sellerPaysPostage: pays,
    buyerPaysLabel: sellsLabels,
    packaging: amountThere(packingOf(shop.packing, shop.parcels.boxes, parcel), shop.rate),
    quote: pays && !sellsLabels ? quoteThere(shop, parcel(), content) : null,
  };
}

/** The net of a computed listing in the account's currency; null while it has no price. */
export function netOfContent(shop: NetShop, content: Content, thing: NetThing, liveCount: number): Net | null {
  if (typeof content.price !== 'number') return null;
  // Not a copy with its price: this is asked some hundred thousand times for a change of many.
  return netOf(Object.assign(netInput(shop, content, thing, liveCount), { price: content.price }));
}

/** A price below the usual one at which it may be bought as well, and what is left of it. */
export type LowerPrice = { label: string; net: Net };

/** What is left at each lower price that the listing allows: sale price, tiers. */
export function netsBelow(shop: NetShop, content: Content, thing: NetThing, liveCount: number): LowerPrice[] {
  const input = netInput(shop, content, thing, liveCount);
  return shop.compiled.rules.extras.flatMap((extra): LowerPrice[] => {
    const value = content[`extra.${extra.id}`];
    if (extra.type === 'money' && extra.sells && typeof value === 'number')
      return [{ label: extra.label, net: netOf({ ...input, price: value }) }];
    if (extra.form === 'tiers' && Array.isArray(value))
      return value.flatMap((line) => {
        const tier = readTier(String(line), shop.compiled.rules.currency);
        return tier
          ? [{ label: `${extra.label}: from ${tier.pieces}`, net: netOf({ ...input, price: tier.price }) }]
          : [];
      });
    return [];
  });
}
