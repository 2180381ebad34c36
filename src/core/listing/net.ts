import { convert, type Rate } from '../measure/index';
import { type Net, type NetInput, netOf } from '../price/index';
import type { MarketRules } from '../rules/index';
import type { Content } from './index';

/** Box, filling, tape for one parcel, in minor units. A setting of the shop comes with the packing needs. */
export const packagingCost = 60;

export type NetFacts = {
  price: number;
  cost: number | null;
  weightGrams: number | null;
  categoryId: string | null;
  liveCount: number;
  sellerPays: boolean;
  longestMm?: number | null;
  /** In the account's currency; the shop's own amount when left out. */
  packaging?: number;
  values?: Record<string, unknown>;
  quote?: number | null;
};

// Field by field, since it is built for every listing of a change: copying an object costs more than the net itself.
const inputAt = (rules: MarketRules, facts: Omit<NetFacts, 'price'>, price: number): NetInput => ({
  fees: rules.fees,
  price,
  cost: facts.cost,
  categoryId: facts.categoryId,
  liveCount: facts.liveCount,
  weightGrams: facts.weightGrams,
  longestMm: facts.longestMm,
  values: facts.values,
  sellerPaysPostage: facts.sellerPays,
  buyerPaysLabel: rules.fees.labels.length > 0,
  packaging: facts.packaging ?? packagingCost,
  quote: facts.quote,
});

/** Everything but the price that the net on a marketplace hangs on. */
export function netInput(rules: MarketRules, facts: Omit<NetFacts, 'price'>): Omit<NetInput, 'price'> {
  const { price: _price, ...input } = inputAt(rules, facts, 0);
  return input;
}

export const netFor = (rules: MarketRules, facts: NetFacts): Net => netOf(inputAt(rules, facts, facts.price));

export const sellerPays = (rules: MarketRules, content: Content): boolean =>
  rules.price?.holds === true ||
  (rules.sellerPaysWhen !== null && content[rules.sellerPaysWhen.field] === rules.sellerPaysWhen.value);

type Shop = { compiled: { rules: MarketRules }; rate: Rate | null };

/** An amount of the items' currency in the account's. */
export const amountThere = <T extends number | null>(amount: T, rate: Rate | null): T =>
  (amount === null || rate === null ? amount : convert(amount, rate)) as T; // null stays null, a number a number

/**
 * What the net of a computed listing hangs on besides its price.
 * @param cost in the items' currency
 */
export const factsOf = (
  { compiled: { rules }, rate }: Shop,
  content: Content,
  cost: number | null,
  liveCount: number,
): Omit<NetFacts, 'price'> => ({
  cost: amountThere(cost, rate),
  packaging: amountThere(packagingCost, rate),
  weightGrams: typeof content.weightGrams === 'number' ? content.weightGrams : null,
  longestMm: Array.isArray(content.size) ? Math.max(...content.size.map(Number)) : null,
  categoryId: typeof content.category === 'string' ? content.category : null,
  liveCount,
  sellerPays: sellerPays(rules, content),
  values: content,
});

/** The net of a computed listing in the account's currency; null while it has no price. */
export function netOfContent(shop: Shop, content: Content, cost: number | null, liveCount: number): Net | null {
  if (typeof content.price !== 'number') return null;
  return netFor(shop.compiled.rules, { ...factsOf(shop, content, cost, liveCount), price: content.price });
}
