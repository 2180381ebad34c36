import type { MarketRules } from '../../core/rules';
import { choiceExtra, commonRules, limit, publishedRulesSchema, textExtra } from '../published-rules';

/** Lanesend's published rules in our form; the place is needed, the weight only when it is posted. */
export function lanesendRules(published: unknown): MarketRules {
  const rules = publishedRulesSchema.parse(published);
  return {
    ...commonRules(rules),
    market: 'lanesend',
    name: 'Lanesend',
    title: { max: limit(rules, 'subject', 100) },
    brand: null,
    description: { format: 'lines', min: 1, max: limit(rules, 'body', 5_000) },
    photos: { min: 1, max: limit(rules, 'photos', 12), minLongestSide: 1 },
    tags: { max: limit(rules, 'keywords', 15), maxLength: limit(rules, 'keywordLength', 40), letters: 'any' },
    quantity: { max: limit(rules, 'amount', 50) },
    weight: { required: true },
    size: null,
    conditionMap: {
      new: 'unused',
      'new-open': 'unused',
      mint: 'good',
      excellent: 'good',
      'very-good': 'good',
      good: 'worn',
      fair: 'worn',
      poor: 'worn',
      parts: 'defective',
    },
    conditionNote: null,
    sellerPaysWhen: null,
    extras: [
      { ...textExtra('place', 'Place', limit(rules, 'place', 60)), required: true },
      choiceExtra(rules, 'handover', 'Handing over', 'handovers', true, 'both'),
    ],
  };
}

/** Lanesend's weight classes and the most grams that each may weigh, lightest first. */
export const weightClasses = [
  { id: 'letter', upToGrams: 500 },
  { id: 'packet', upToGrams: 2_000 },
  { id: 'parcel', upToGrams: 10_000 },
  { id: 'freight', upToGrams: 31_000 },
] as const;
