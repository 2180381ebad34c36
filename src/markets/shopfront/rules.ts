import type { MarketRules } from '../../core/rules';
import {
  choiceExtra,
  choicesExtra,
  commonRules,
  limit,
  moneyExtra,
  publishedRulesSchema,
  textExtra,
} from '../published-rules';

/** Shopfront's published rules in our form: the seller's own shop, with handles, collections and search texts. */
export function shopfrontRules(published: unknown): MarketRules {
  const rules = publishedRulesSchema.parse(published);
  const text = (id: string, label: string, name: string, fallback: number, from: string[]) => ({
    ...textExtra(id, label, limit(rules, name, fallback)),
    from,
  });
  return {
    ...commonRules(rules),
    market: 'shopfront',
    name: 'Shopfront',
    title: { max: limit(rules, 'title', 150) },
    brand: null,
    description: { format: 'rich', min: 0, max: limit(rules, 'body', 100_000) },
    photos: { min: 1, max: limit(rules, 'photos', 30), minLongestSide: limit(rules, 'photoSide', 200) },
    tags: { max: limit(rules, 'tags', 250), maxLength: limit(rules, 'tagLength', 60), letters: 'any' },
    quantity: { max: limit(rules, 'stock', 100_000) },
    weight: { required: false },
    size: null,
    conditionMap: {
      new: 'new',
      'new-open': 'new',
      mint: 'used',
      excellent: 'used',
      'very-good': 'used',
      good: 'used',
      fair: 'used',
      poor: 'used',
      parts: 'defective',
    },
    conditionNote: null,
    sellerPaysWhen: null,
    extras: [
      { ...text('handle', 'Handle', 'handle', 100, ['title']), required: true, form: 'handle' },
      text('vendor', 'Vendor', 'vendor', 80, ['brand']),
      text('productType', 'Product type', 'productType', 80, ['category']),
      choicesExtra(rules, 'collections', 'Collections', 'collections', limit(rules, 'collections', 10), ['category']),
      text('searchTitle', 'Search title', 'searchTitle', 65, ['title']),
      text('searchText', 'Search text', 'searchText', 155, ['description']),
      { ...moneyExtra('compareAt', 'Compare-at price', 'above-price'), from: ['retailPrice'] },
      choiceExtra(rules, 'stockPlace', 'Stock is in', 'places', true, 'shop'),
    ],
  };
}
