import type { MarketRules } from '../../core/rules';
import { choiceExtra, commonRules, limit, publishedRulesSchema, switchExtra } from '../published-rules';

/** Pippet's published rules in our form; our nine conditions mapped to its five. */
export function pippetRules(published: unknown): MarketRules {
  const rules = publishedRulesSchema.parse(published);
  return {
    ...commonRules(rules),
    market: 'pippet',
    name: 'Pippet',
    title: { max: limit(rules, 'title', 45) },
    brand: { required: true, values: (rules.lists.brands ?? []).map((brand) => brand.label), none: 'none' },
    description: { format: 'plain', min: limit(rules, 'textMin', 8), max: limit(rules, 'text', 900) },
    photos: { min: 1, max: limit(rules, 'photos', 10), minLongestSide: 1 },
    tags: { max: limit(rules, 'tags', 3), maxLength: limit(rules, 'tagLength', 30), letters: 'any' },
    quantity: { max: 1 },
    weight: { required: true },
    size: null,
    conditionMap: {
      new: 'unused',
      'new-open': 'unused',
      mint: 'hardly',
      excellent: 'hardly',
      'very-good': 'fine',
      good: 'fine',
      fair: 'signs',
      poor: 'tired',
      parts: 'tired',
    },
    conditionNote: null,
    sellerPaysWhen: { field: 'extra.postagePaidBy', value: 'seller' },
    extras: [
      choiceExtra(rules, 'postagePaidBy', 'Postage paid by', 'postagePaidBy', true, 'buyer'),
      switchExtra('priceDrops', 'Automatic price drops', false),
    ],
  };
}

/** Pippet's weight classes and the most grams that each may weigh, lightest first. */
export const weightClasses = [
  { id: 'feather', upToGrams: 250 },
  { id: 'light', upToGrams: 1_000 },
  { id: 'solid', upToGrams: 5_000 },
  { id: 'heavy', upToGrams: 15_000 },
] as const;
