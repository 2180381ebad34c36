import type { Json } from '../../json';
import { tierFault } from '../../price/tiers';
import type { ExtraRule, MarketRules } from '../../rules/rules';
import type { Content, Issue, ListingValue } from '../fields';
import { textLength } from '../fit/text-length';
import { here, problem } from './problem';

export type ExtraContext = { rules: MarketRules; needed: boolean; content: Content; today: string };

const isEmpty = (value: Json) => value === null || value === '' || (Array.isArray(value) && value.length === 0);
const dayMs = 86_400_000;

/** Each tier takes more pieces than the one before, at a lower price than it and than the listing's own. */
function tiers(extra: ExtraRule, values: Json[], { rules, content }: ExtraContext): string | null {
  const price = typeof content.price === 'number' ? content.price : null;
  const fault = tierFault(values.map(String), price, rules.currency);
  return fault && `${extra.label}: ${fault}`;
}

function lists(extra: ExtraRule, values: Json[], context: ExtraContext): string | null {
  if (extra.maxItems !== null && values.length > extra.maxItems) return `${extra.label}: ${extra.maxItems} at most`;
  if (extra.type === 'choices' && values.some((one) => !extra.values?.some((choice) => choice.id === one)))
    return `One of ${extra.label} is not known there`;
  if (extra.maxLength !== null && values.some((one) => textLength(String(one)) > (extra.maxLength ?? 0)))
    return `${extra.label}: ${extra.maxLength} characters at most in each line`;
  if (extra.form === 'contents' && values.some((one) => !/^\d{1,3} x \S/.test(String(one))))
    return `${extra.label}: each line has the form 2 x Name`;
  if (extra.form === 'tiers') return tiers(extra, values, context);
  return null;
}

function numbers(extra: ExtraRule, value: Json, content: Content): string | null {
  if (typeof value !== 'number' || !Number.isFinite(value)) return `${extra.label} must be a number`;
  if (extra.min !== undefined && value < extra.min) return `${extra.label} must be at least ${extra.min}`;
  if (extra.max !== undefined && value > extra.max) return `${extra.label} must be at most ${extra.max}`;
  const price = typeof content.price === 'number' ? content.price : null;
  if (price !== null && extra.against === 'above-price' && value <= price)
    return `${extra.label} must be above the price`;
  if (price !== null && extra.against === 'from-price' && value < price)
    return `${extra.label} must not be below the price`;
  if (price !== null && extra.against === 'below-price' && value >= price)
    return `${extra.label} must be below the price`;
  return null;
}

function texts(extra: ExtraRule, value: string): string | null {
  if (extra.maxLength !== null && textLength(value) > extra.maxLength)
    return `${extra.label}: ${extra.maxLength} characters at most`;
  if (extra.form === 'handle' && !/^[a-z0-9]+(-[a-z0-9]+)*$/.test(value))
    return `${extra.label} may hold only small letters, digits and single hyphens`;
  return null;
}

function dates(extra: ExtraRule, value: string, today: string): string | null {
  const at = Date.parse(value);
  if (!/^\d{4}-\d{2}-\d{2}$/.test(value) || Number.isNaN(at)) return `${extra.label} must be a day, as in 2027-05-31`;
  if (extra.minDaysAhead !== undefined && at < Date.parse(today) + extra.minDaysAhead * dayMs)
    return `${extra.label} must be at least ${extra.minDaysAhead} days ahead`;
  return null;
}

/** Issues of a marketplace's own field. */
export function checkExtra(value: ListingValue, extra: ExtraRule, context: ExtraContext): Issue[] {
  const { rules, needed, content, today } = context;
  if (isEmpty(value.value)) {
    const partner = extra.goesWith?.find((field) => content[field] !== undefined);
    if (!needed && !partner) return [];
    return [
      problem('extra-missing', value.field, `${extra.label} is needed on ${rules.name}`, {
        kind: extra.type === 'date' || partner ? 'edit-override' : 'account-default',
        field: extra.type === 'date' || partner ? value.field : extra.id,
        label: extra.type === 'date' || partner ? `Set ${extra.label}` : `Set ${extra.label} for the account`,
      }),
    ];
  }
  const said = value.value;
  const fix = here(value.field, `Change ${extra.label}`);
  const say = (code: string, message: string | null): Issue[] =>
    message === null ? [] : [problem(code, value.field, message, fix)];
  switch (extra.type) {
    case 'choice':
      return say(
        'extra-value',
        extra.values && !extra.values.some((choice) => choice.id === said)
          ? `${rules.name} has no such ${extra.label}`
          : null,
      );
    case 'choices':
    case 'list':
      return say('extra-list', Array.isArray(said) ? lists(extra, said, context) : `${extra.label} must be a list`);
    case 'money':
    case 'integer':
      return say('extra-number', numbers(extra, said, content));
    case 'text':
      return say(
        textLength(String(said)) > (extra.maxLength ?? Number.POSITIVE_INFINITY) ? 'extra-long' : 'extra-form',
        texts(extra, String(said)),
      );
    case 'date':
      return say('extra-date', dates(extra, String(said), today));
    case 'boolean':
      return say('extra-value', typeof said === 'boolean' ? null : `${extra.label} is yes or no`);
  }
}
