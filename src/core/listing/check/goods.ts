import { nameKey } from '../../rules/compiled';
import type { AttributeRule, MarketRules } from '../../rules/rules';
import type { ListingInput } from '../context';
import type { Issue, ListingValue } from '../fields';
import { textLength } from '../fit/text-length';
import { type FoundProduct, knownProduct } from '../map/product';
import { fixFor, here, master, problem } from './problem';

export function checkCondition(value: ListingValue, rules: MarketRules, input: ListingInput): Issue[] {
  if (value.origin === 'unused') return [];
  if (value.value === null) {
    const message = input.item.condition ? `${rules.name} has no grade for this condition` : 'A condition is needed';
    return [
      problem(
        'condition-missing',
        'condition',
        message,
        input.item.condition ? here('condition', 'Choose a grade here') : master('condition', 'Choose the condition'),
      ),
    ];
  }
  if (!rules.conditions.some((grade) => grade.id === value.value))
    return [
      problem(
        'condition-unknown',
        'condition',
        `${rules.name} does not know this condition`,
        here('condition', 'Choose a grade here'),
      ),
    ];
  return [];
}

export function checkCategory(value: ListingValue, rules: MarketRules, input: ListingInput): Issue[] {
  if (rules.category === 'product') return [];
  const say = (code: string, message: string, label: string) => [
    problem(code, 'category', message, { kind: 'map-category', label }),
  ];
  if (value.value === null) {
    if (rules.category === 'optional') return [];
    if (input.item.category === '')
      return [
        problem('category-missing', 'category', 'A category is needed', master('category', 'Choose the category')),
      ];
    return say(
      'category-unmapped',
      `“${input.item.category}” has no counterpart on ${rules.name} yet`,
      'Choose the counterpart',
    );
  }
  const found = input.account.compiled.categoryById.get(String(value.value));
  if (!found) return say('category-gone', `This category no longer exists on ${rules.name}`, 'Choose another');
  if (!found.leaf) return say('category-not-leaf', `“${found.name}” is not the deepest level`, 'Choose a deeper one');
  return [];
}

export function checkProduct(value: ListingValue, rules: MarketRules, input: ListingInput): Issue[] {
  if (!rules.product || (!rules.product.required && !value.value)) return [];
  if (value.value) {
    const record = knownProduct(input.account.products, String(value.value));
    if (record) return rules.product.required ? [] : checkMaker(record, rules, input);
    return [
      problem('product-unknown', 'product', `${rules.name} has no such product as far as is known`, {
        kind: 'find-product',
        label: 'Find the product',
      }),
    ];
  }
  const known = input.item.barcode || (input.item.brand && input.item.model);
  return [
    problem(
      'product-missing',
      'product',
      known
        ? `It was not found in ${rules.name}’s catalogue yet`
        : 'A barcode, or brand and model, is needed to find the product',
      known ? { kind: 'find-product', label: 'Find the product' } : master('barcode', 'Add the barcode'),
    ),
  ];
}

/** Where a listing says its own brand besides, the shared record must be of the same maker. */
function checkMaker(record: FoundProduct, rules: MarketRules, { item }: ListingInput): Issue[] {
  if (item.brand && nameKey(record.name).startsWith(nameKey(item.brand))) return [];
  const fix = item.brand ? here('product', 'Take no record here') : master('brand', 'Say the brand');
  return [problem('product-brand', 'product', `The record on ${rules.name} is called “${record.name}”`, fix)];
}

export function checkStockNumber(value: ListingValue, rules: MarketRules): Issue[] {
  const rule = rules.sku;
  const number = String(value.value ?? '');
  if (!rule || (/^[A-Za-z0-9-]+$/.test(number) && number.length >= rule.min && number.length <= rule.max)) return [];
  return [
    problem(
      'sku-form',
      'sku',
      `The stock number must have ${rule.min} to ${rule.max} letters, digits and hyphens there`,
      master('sku', 'Change the stock number'),
    ),
  ];
}

/** Issues of one attribute of the chosen category. */
export function checkAttribute(
  value: ListingValue & { exact: boolean },
  attribute: AttributeRule,
  rules: MarketRules,
): Issue[] {
  const { label } = attribute;
  const said = typeof value.value === 'string' ? value.value : '';
  if (said === '')
    return attribute.required
      ? [problem('attribute-missing', value.field, `${label} is needed`, master(`attributes.${label}`, `Add ${label}`))]
      : [];
  if (!value.exact)
    return [
      problem(
        'attribute-value',
        value.field,
        `${rules.name} has no ${label} “${said}”`,
        value.origin === 'override'
          ? here(value.field, 'Choose one of theirs')
          : { kind: 'map-value', field: value.field, source: said, label: 'Choose one of theirs' },
      ),
    ];
  if (!attribute.values && textLength(said) > attribute.maxLength)
    return [
      problem(
        'attribute-long',
        value.field,
        `${label} is longer than ${attribute.maxLength} characters`,
        fixFor(value, `attributes.${label}`, 'Shorten it'),
      ),
    ];
  return [];
}
