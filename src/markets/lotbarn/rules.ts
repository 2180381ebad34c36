import type { MarketRules } from '../../core/rules';
import { choiceExtra, commonRules, limit, publishedRulesSchema, textExtra } from '../published-rules';

/** Lotbarn's published rules in our form: lots of catalogue entries, by finish and condition. */
export function lotbarnRules(published: unknown): MarketRules {
  const rules = publishedRulesSchema.parse(published);
  return {
    ...commonRules(rules),
    market: 'lotbarn',
    name: 'Lotbarn',
    title: null,
    brand: null,
    description: null,
    photos: { min: 0, max: limit(rules, 'photos', 2), minLongestSide: 1 },
    tags: null,
    product: { required: true },
    category: 'product',
    quantity: { max: limit(rules, 'quantity', 9_999) },
    weight: { required: false },
    size: null,
    conditionMap: {
      new: 'sealed',
      'new-open': 'complete',
      mint: 'complete',
      excellent: 'complete',
      'very-good': 'used',
      good: 'used',
      fair: 'used',
      poor: 'used',
      parts: 'parts',
    },
    conditionNote: { max: limit(rules, 'comment', 240), forbiddenOn: [], plain: true },
    sellerPaysWhen: null,
    extras: [
      {
        ...choiceExtra(rules, 'finish', 'Finish', 'finishes', true, 'plain'),
        from: ['attributes.Finish', 'attributes.Colour'],
      },
      { ...textExtra('place', 'Private place', limit(rules, 'place', 60)), from: ['location'] },
      {
        ...textExtra('tiers', 'Quantity tiers', 60),
        type: 'list',
        maxItems: limit(rules, 'tiers', 3),
        maxLength: 20,
        form: 'tiers',
      },
    ],
  };
}
