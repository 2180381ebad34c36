import type { MarketRules } from '../../core/rules';
import { commonRules, dateExtra, limit, listExtra, moneyExtra, publishedRulesSchema } from '../published-rules';

/** Selasar's published rules in our form: titles by pattern, prices in SGD that hold everything, everything reviewed. */
export function selasarRules(published: unknown): MarketRules {
  const rules = publishedRulesSchema.parse(published);
  const common = commonRules(rules);
  return {
    ...common,
    market: 'selasar',
    name: 'Selasar',
    title: { max: limit(rules, 'name', 110), pattern: 'product' },
    brand: { required: true, values: null, none: 'No brand' },
    description: { format: 'rich', min: 1, max: limit(rules, 'description', 25_000), links: false, counts: 'seen' },
    highlights: {
      min: limit(rules, 'highlightsMin', 2),
      max: limit(rules, 'highlights', 7),
      maxLength: limit(rules, 'highlightLength', 80),
    },
    photos: {
      min: 1,
      max: limit(rules, 'photos', 8),
      minLongestSide: limit(rules, 'photoSide', 600),
      minShortestSide: limit(rules, 'photoSide', 600),
      shape: { narrow: 1, wide: 1 },
    },
    tags: null,
    price: { ...common.price, holds: true },
    product: { required: false },
    sku: { min: limit(rules, 'skuMin', 4), max: limit(rules, 'sku', 40), once: true },
    quantity: { max: limit(rules, 'quantity', 10_000) },
    weight: { required: true },
    size: { required: true },
    conditionMap: {
      new: 'new',
      'new-open': 'new',
      mint: 'used-a',
      excellent: 'used-a',
      'very-good': 'used-a',
      good: 'used-b',
      fair: 'used-c',
      poor: 'used-c',
      parts: null,
    },
    conditionNote: null,
    sellerPaysWhen: null,
    extras: [
      {
        ...listExtra('contents', 'Package contents', limit(rules, 'contents', 12), 80),
        required: true,
        form: 'contents',
        from: ['attributes.Contents'],
      },
      {
        ...moneyExtra('salePrice', 'Sale price', 'below-price'),
        sells: true,
        goesWith: ['extra.saleFrom', 'extra.saleTo'],
      },
      { ...dateExtra('saleFrom', 'Sale from'), goesWith: ['extra.salePrice'] },
      { ...dateExtra('saleTo', 'Sale to'), goesWith: ['extra.salePrice'] },
    ],
  };
}
