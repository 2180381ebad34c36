import type { MarketRules } from '../../core/rules';
import { choiceExtra, commonRules, limit, publishedRulesSchema, textExtra } from '../published-rules';

/** Wallfolk's published rules in our form: one picture of artwork, printed on one of their products. */
export function wallfolkRules(published: unknown): MarketRules {
  const rules = publishedRulesSchema.parse(published);
  const common = commonRules(rules);
  return {
    ...common,
    market: 'wallfolk',
    name: 'Wallfolk',
    title: { max: limit(rules, 'title', 60) },
    brand: null,
    description: { format: 'lines', min: 1, max: limit(rules, 'text', 1_000) },
    photos: { min: 1, max: 1, minLongestSide: limit(rules, 'artworkSide', 2_400), kind: 'artwork' },
    tags: { max: limit(rules, 'tags', 15), maxLength: limit(rules, 'tagLength', 30), letters: 'any' },
    quantity: { max: 99 },
    // Its own products on their grounds; nothing else is made there.
    variations: common.variations && { ...common.variations, printed: true },
    weight: null,
    size: null,
    conditionMap: {},
    conditionNote: null,
    sellerPaysWhen: null,
    extras: [
      choiceExtra(rules, 'product', 'Product', 'products', true, 'print-40x50'),
      choiceExtra(rules, 'ground', 'Ground colour', 'grounds', true, 'white'),
      // A file in the product's own measure covers it.
      { ...choiceExtra(rules, 'placement', 'Placement', 'placements', false, 'centre'), printed: 'full' },
      {
        ...textExtra('scale', 'Scale in percent', 3),
        type: 'integer',
        maxLength: null,
        min: limit(rules, 'scaleMin', 10),
        max: limit(rules, 'scaleMax', 100),
        fallback: 90,
        printed: 100,
      },
    ],
  };
}
