import type { MarketRules } from './rules';

/** With which carrier a parcel goes. It is ours alone: nothing of it is sent to a marketplace, nets hang on it. */
export const carrierField = 'extra.carrier';

/**
 * Rules with the choice of a carrier among the marketplace's own fields, so that it is said where those are: by the
 * account, by a template, by the item, or for one listing. A marketplace that sells labels of its own has none, nor has one
 * on which the seller never pays for the parcel.
 */
export function withCarrier(rules: MarketRules, carriers: readonly { id: string; name: string }[]): MarketRules {
  const mayPay = rules.sellerPaysWhen !== null || rules.price?.holds === true;
  if (rules.fees.labels.length > 0 || carriers.length === 0 || !mayPay) return rules;
  const values = carriers.map(({ id, name }) => ({ id, label: name }));
  const carrier = { id: 'carrier', label: 'Carrier', type: 'choice' as const, required: false, values, fallback: null };
  return { ...rules, extras: [...rules.extras, { ...carrier, maxLength: null, maxItems: null }] };
}
