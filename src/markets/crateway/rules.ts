import type { MarketRules } from '../../core/rules';
import { choiceExtra, commonRules, dateExtra, limit, publishedRulesSchema } from '../published-rules';

/** Crateway's published rules in our form: offers on products of its catalogue, no title and no photos of one's own. */
export function cratewayRules(published: unknown): MarketRules {
  const rules = publishedRulesSchema.parse(published);
  return {
    ...commonRules(rules),
    market: 'crateway',
    name: 'Crateway',
    title: null,
    brand: null,
    description: null,
    photos: { min: 0, max: 0, minLongestSide: 0, kind: 'catalogue' },
    tags: null,
    product: { required: true },
    category: 'product',
    quantity: { max: limit(rules, 'quantity', 99_999) },
    weight: { required: false },
    size: null,
    conditionMap: {
      new: 'new',
      'new-open': 'as-new',
      mint: 'as-new',
      excellent: 'as-new',
      'very-good': 'good',
      good: 'good',
      fair: 'acceptable',
      poor: 'acceptable',
      parts: null,
    },
    conditionNote: { max: limit(rules, 'note', 500), forbiddenOn: rules.noteForbiddenOn, plain: true },
    sellerPaysWhen: null,
    extras: [
      choiceExtra(rules, 'ships', 'Who sends', 'ships', true, 'self'),
      choiceExtra(rules, 'tax', 'Tax code', 'taxes', true, 'standard'),
      { ...choiceExtra(rules, 'battery', 'Battery', 'batteries', false), from: ['attributes.Battery'] },
      { ...choiceExtra(rules, 'hazard', 'Hazard', 'hazards', false), from: ['attributes.Hazard'] },
      {
        ...dateExtra('expires', 'Expiry date'),
        from: ['expiresOn', 'attributes.Expiry date', 'attributes.Expires'],
        minDaysAhead: limit(rules, 'expiryDays', 60),
      },
    ],
  };
}
