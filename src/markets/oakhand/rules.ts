import type { MarketRules } from '../../core/rules';
import { choiceExtra, commonRules, limit, publishedRulesSchema, sectionExtra, textExtra } from '../published-rules';

/** Oakhand's published rules in our form; our nine conditions mapped to its four, broken things not taken. */
export function oakhandRules(published: unknown): MarketRules {
  const rules = publishedRulesSchema.parse(published);
  return {
    ...commonRules(rules),
    market: 'oakhand',
    name: 'Oakhand',
    title: { max: limit(rules, 'title', 130) },
    brand: null,
    description: { format: 'lines', min: 1, max: limit(rules, 'text', 8_000) },
    photos: { min: 1, max: limit(rules, 'photos', 9), minLongestSide: limit(rules, 'photoLongestSide', 500) },
    tags: { max: limit(rules, 'tags', 12), maxLength: limit(rules, 'tagLength', 24), letters: 'words' },
    quantity: { max: limit(rules, 'quantity', 999) },
    weight: { required: false },
    size: { required: false },
    conditionMap: {
      new: 'new',
      'new-open': 'new',
      mint: 'vintage-fine',
      excellent: 'vintage-fine',
      'very-good': 'vintage-fine',
      good: 'vintage-used',
      fair: 'vintage-used',
      poor: 'vintage-worn',
      parts: null,
    },
    conditionNote: null,
    sellerPaysWhen: { field: 'extra.postageProfile', value: 'free' },
    extras: [
      choiceExtra(rules, 'maker', 'Maker', 'makers', true),
      choiceExtra(rules, 'decade', 'Decade', 'decades', true),
      choiceExtra(rules, 'kind', 'Supply or finished', 'kinds', true),
      choiceExtra(rules, 'postageProfile', 'Postage profile', 'postageProfiles', true),
      choiceExtra(rules, 'returnProfile', 'Return profile', 'returnProfiles', true),
      {
        id: 'materials',
        label: 'Materials',
        type: 'list',
        required: false,
        values: null,
        maxLength: 45,
        maxItems: limit(rules, 'materials', 10),
        fallback: null,
      },
      textExtra('personalPrompt', 'Personalisation prompt', limit(rules, 'prompt', 200)),
      sectionExtra(rules, 40),
    ],
  };
}
