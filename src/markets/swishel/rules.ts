import type { MarketRules } from '../../core/rules';
import { choiceExtra, choicesExtra, commonRules, limit, publishedRulesSchema, searchesOf } from '../published-rules';

/** Swishel's published rules in our form: no title, the first line of the text stands for it. */
export function swishelRules(published: unknown): MarketRules {
  const rules = publishedRulesSchema.parse(published);
  return {
    ...commonRules(rules),
    market: 'swishel',
    name: 'Swishel',
    title: null,
    brand: null,
    description: { format: 'plain', min: 1, max: limit(rules, 'words', 850), titleFirst: true },
    photos: {
      min: 1,
      max: limit(rules, 'photos', 5),
      minLongestSide: limit(rules, 'photoSide', 640),
      minShortestSide: limit(rules, 'photoSide', 640),
      shape: { narrow: 1, wide: 1 },
    },
    tags: {
      max: limit(rules, 'hashtags', 6),
      maxLength: limit(rules, 'hashtagLength', 30),
      letters: 'hashtag',
      searches: searchesOf(rules),
    },
    quantity: { max: 1 },
    weight: { required: false },
    size: null,
    conditionMap: {
      new: 'new',
      'new-open': 'new',
      mint: 'lovely',
      excellent: 'lovely',
      'very-good': 'used',
      good: 'used',
      fair: 'well-used',
      poor: 'well-used',
      parts: 'well-used',
    },
    conditionNote: null,
    sellerPaysWhen: { field: 'extra.postage', value: 'included' },
    extras: [
      choicesExtra(rules, 'colours', 'Colours', 'colours', limit(rules, 'colours', 2), ['attributes.Colour']),
      { ...choiceExtra(rules, 'age', 'Age', 'ages', false), from: ['attributes.Decade'] },
      choiceExtra(rules, 'source', 'Source', 'sources', false, 'second hand'),
      choicesExtra(rules, 'styles', 'Style', 'styles', limit(rules, 'styles', 3), ['attributes.Style']),
      choiceExtra(rules, 'postage', 'Postage', 'postage', true, 'included'),
    ],
  };
}
