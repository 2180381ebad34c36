import { ownValue } from '../../json';
import type { AttributeRule, CategoryRule } from '../../rules/rules';
import type { ListingValue } from '../fields';
import { fitStockNumber } from '../fit/stock-number';
import { mapAttribute } from '../map/attributes';
import { suggestCategories } from '../map/category';
import { productOf } from '../map/product';
import { type Draft, type Part, text, unused } from './draft';

export function brand(draft: Draft): Part {
  const { compiled } = draft.account;
  const rule = compiled.rules.brand;
  if (!rule) return unused;
  const written = draft.override('brand');
  if (written !== undefined) return { value: written, origin: 'override' };
  const name = draft.item.brand;
  if (!compiled.brandByKey) return { value: name || rule.none, origin: name ? 'master' : 'rule' };
  const listed = compiled.brandByKey.get(name.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, ''));
  if (listed) return { value: listed, origin: listed === name ? 'master' : 'fitted' };
  return { value: rule.none, origin: 'rule', lost: name ? [name] : undefined };
}

/** The entry of their catalogue: chosen here, or found before for the same thing. */
export function product(draft: Draft): Part {
  if (!draft.rules.product) return unused;
  const written = draft.override('product');
  if (written !== undefined) return { value: written, origin: 'override' };
  return { value: productOf(draft.account.products, draft.item)?.id ?? null, origin: 'rule' };
}

/** A suggestion is used only when a word of the own category is in its name, and it is clearly the best. */
const clearScore = 6;

export function category(draft: Draft): Part {
  const { account, item, rules } = draft;
  if (rules.category === 'product') {
    const found = productOf(account.products, item);
    return found?.categoryId ? { value: found.categoryId, origin: 'rule' } : unused;
  }
  const written = draft.override('category');
  if (written !== undefined) return { value: written, origin: 'override' };
  const mapped = ownValue(account.categoryMap, item.category);
  if (mapped !== undefined) return { value: mapped, origin: 'rule' };
  if (item.category === '' && item.title === '') return { value: null, origin: 'rule' };
  const [best, next] = suggestCategories(account.compiled, saidBy(draft), account.categoryMap, 2);
  const clear = best && best.score >= clearScore && best.score > (next?.score ?? 0) + 0.4;
  return { value: clear ? best.id : null, origin: 'rule' };
}

const saidBy = ({ item }: Draft) => ({
  ownCategory: item.category,
  title: item.title,
  brand: item.brand,
  attributes: item.attributes,
});

export function condition(draft: Draft): Part {
  const { rules } = draft;
  if (rules.conditions.length === 0) return unused;
  const written = draft.override('condition');
  if (written !== undefined) return { value: written, origin: 'override' };
  const grade = draft.item.condition;
  if (!grade) return { value: null, origin: 'master' };
  const own = ownValue(draft.account.maps.condition ?? {}, grade);
  if (own !== undefined) return { value: own, origin: 'account' };
  return { value: rules.conditionMap[grade] ?? null, origin: 'fitted' };
}

export function stockNumber(draft: Draft): Part {
  const { sku: rule } = draft.rules;
  const { item, input } = draft;
  if (input.numberThere)
    return { value: input.numberThere, origin: input.numberThere === item.sku ? 'master' : 'fitted' };
  const value = rule ? fitStockNumber(item.sku, rule, input.timesMade) : item.sku;
  return { value, origin: value === item.sku ? 'master' : 'fitted' };
}

/** The attributes that the chosen category asks for. */
export const attributesOf = (draft: Draft, categoryId: unknown): CategoryRule['attributes'] =>
  draft.rules.category === 'product'
    ? []
    : (draft.account.compiled.categoryById.get(text(categoryId as string))?.attributes ?? []);

export type AttributeValue = ListingValue & { exact: boolean };

export function attributeValue(draft: Draft, attribute: AttributeRule): AttributeValue {
  const field = `attr.${attribute.id}`;
  const written = draft.override(field);
  const base = { field, label: attribute.label, issues: [], max: attribute.values ? undefined : attribute.maxLength };
  if (written !== undefined) {
    const exact = !attribute.values || attribute.values.includes(text(written)) || written === null;
    return { ...base, value: written, origin: 'override', exact };
  }
  const mapped = mapAttribute(draft.account.compiled, attribute, draft.item, draft.account.synonyms);
  if (!mapped) return { ...base, value: null, origin: 'master', exact: true };
  // A value that an optional list does not hold is left out rather than refused by the marketplace.
  if (!mapped.exact && !attribute.required)
    return { ...base, value: null, origin: 'rule', lost: [mapped.value], exact: true };
  return {
    ...base,
    value: mapped.value,
    origin: mapped.how === 'learned' ? 'rule' : mapped.how === 'like' ? 'fitted' : 'master',
    exact: mapped.exact,
  };
}
