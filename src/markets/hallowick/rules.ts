import type { MarketRules } from '../../core/rules';
import {
  choiceExtra,
  commonRules,
  limit,
  moneyExtra,
  publishedRulesSchema,
  sectionExtra,
  switchExtra,
  textExtra,
} from '../published-rules';

/** Hallowick's published rules in our form; our nine conditions mapped to its six. */
export function hallowickRules(published: unknown): MarketRules {
  const rules = publishedRulesSchema.parse(published);
  return {
    ...commonRules(rules),
    market: 'hallowick',
    name: 'Hallowick',
    title: { max: limit(rules, 'title', 75) },
    brand: { required: false, values: null, none: null },
    description: { format: 'rich', min: 1, max: limit(rules, 'description', 20_000) },
    photos: { min: 1, max: limit(rules, 'photos', 16), minLongestSide: limit(rules, 'photoLongestSide', 600) },
    tags: null,
    quantity: { max: limit(rules, 'quantity', 9_999) },
    weight: { required: true },
    size: { required: false },
    conditionMap: {
      new: 'brand-new',
      'new-open': 'opened',
      mint: 'refined',
      excellent: 'used-fine',
      'very-good': 'used-fine',
      good: 'used',
      fair: 'used',
      poor: 'used',
      parts: 'broken',
    },
    conditionNote: { max: limit(rules, 'note', 800), forbiddenOn: rules.noteForbiddenOn },
    sellerPaysWhen: { field: 'extra.postage', value: 'free' },
    extras: [
      choiceExtra(rules, 'returns', 'Returns', 'returns', true),
      choiceExtra(rules, 'postage', 'Postage', 'postage', true),
      switchExtra('collection', 'Collection allowed', false),
      switchExtra('offers', 'Offers allowed', false),
      moneyExtra('declineBelow', 'Decline offers below', 'below-price'),
      {
        ...textExtra('handlingDays', 'Days of handling', 2),
        type: 'integer',
        maxLength: null,
        min: 1,
        max: limit(rules, 'handlingDays', 10),
        fallback: 2,
      },
      {
        ...textExtra(
          'advertising',
          `Advertising, percent (${Math.ceil(limit(rules, 'advertisingSuggested', 0) / 100)} suggested)`,
          2,
        ),
        suggested: limit(rules, 'advertisingSuggested', 0) / 100,
        type: 'integer',
        maxLength: null,
        min: 0,
        max: limit(rules, 'advertisingMax', 20),
      },
      sectionExtra(rules, limit(rules, 'section', 40)),
      {
        ...choiceExtra(rules, 'format', 'Sold at', 'formats', false, 'fixed'),
        values: [
          { id: 'fixed', label: 'A fixed price' },
          { id: 'timed', label: 'The highest bid, by the clock' },
        ],
      },
      moneyExtra('reserve', 'Timed sale: not sold below', 'from-price'),
      {
        ...textExtra('timedDays', 'Timed sale: days', 2),
        type: 'integer',
        maxLength: null,
        min: 1,
        max: limit(rules, 'timedDays', 10),
        requiredWhen: { field: 'extra.format', values: ['timed'] },
        fallback: 7,
      },
    ],
  };
}
