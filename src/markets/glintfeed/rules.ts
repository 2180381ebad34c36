import type { MarketRules } from '../../core/rules';
import { commonRules, limit, publishedRulesSchema, searchesOf } from '../published-rules';

/** Glintfeed's published rules in our form: a picture and a caption, nothing to buy. */
export function glintfeedRules(published: unknown): MarketRules {
  const rules = publishedRulesSchema.parse(published);
  const common = commonRules(rules);
  return {
    ...common,
    // A topic is only a shelf to stand on: nothing is asked about it.
    categories: common.categories.map((category) => ({ ...category, attributes: [] })),
    market: 'glintfeed',
    name: 'Glintfeed',
    title: null,
    brand: null,
    description: { format: 'lines', min: 1, max: limit(rules, 'caption', 1_800), titleFirst: true },
    photos: {
      min: 1,
      max: limit(rules, 'photos', 1),
      minLongestSide: limit(rules, 'photoSide', 320),
      minShortestSide: limit(rules, 'photoSide', 320),
      shape: { narrow: limit(rules, 'narrow', 80) / 100, wide: limit(rules, 'wide', 191) / 100 },
    },
    tags: {
      max: limit(rules, 'hashtags', 24),
      maxLength: limit(rules, 'hashtagLength', 40),
      letters: 'hashtag',
      searches: searchesOf(rules),
    },
    price: null,
    quantity: { max: 1_000_000 },
    weight: null,
    size: null,
    conditionMap: {},
    conditionNote: null,
    category: 'optional',
    sellerPaysWhen: null,
    extras: [],
  };
}
