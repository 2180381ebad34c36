import { type FixedField, fixedFieldLabel } from '../field/listing-fields';
import { checkAttribute, checkExtra, checkFixed } from './check/check';
import type { ListingInput } from './context';
import type { Content, Issue, ListingValue } from './fields';
import { Draft, type Part } from './values/draft';
import { extraValue, isNeeded } from './values/extras';
import { attributesOf, attributeValue, brand, category, condition, product, stockNumber } from './values/goods';
import { clip, photos, price, quantity, size, variations, weight } from './values/offer';
import { resolveRelative } from './values/relative';
import { conditionNote, description, highlights, tags, title } from './values/wording';

export type ComputedListing = {
  accountId: number;
  values: ListingValue[];
  issues: Issue[];
  /** True when nothing blocks: the marketplace's rules, as we know them, are kept. */
  ready: boolean;
  content: Content;
  /** The template that was chosen, and equally specific ones that it won over by age. */
  template: { id: number; name: string; tiedWith: string[] } | null;
};

const says = ({ value, origin }: Pick<ListingValue, 'value' | 'origin'>) =>
  origin !== 'unused' && value !== null && value !== '';

/**
 * The listing that a marketplace account shall hold for an item: every field's value with where it comes from and
 * what is wrong with it. Pure; the same input gives the same output.
 */
export function computeListing(input: ListingInput): ComputedListing {
  const { compiled } = input.account;
  const { rules } = compiled;
  const draft = new Draft(input);
  const content: Content = {};
  const note = (field: string, part: Pick<ListingValue, 'value' | 'origin'>) => {
    if (says(part)) content[field] = part.value;
  };

  const categoryPart = category(draft);
  note('category', categoryPart);
  const attributes = attributesOf(draft, categoryPart.value).map((attribute) => {
    const value = attributeValue(draft, attribute);
    value.issues = checkAttribute(value, attribute, rules);
    note(value.field, value);
    return value;
  });
  const extras = rules.extras.map((extra) => {
    const value = extraValue(draft, extra);
    note(value.field, value);
    return value;
  });
  const weightPart = weight(draft);
  note('weightGrams', weightPart);
  const colour = rules.title?.pattern
    ? String(attributes.find((one) => /colour|shade/i.test(one.label))?.value ?? '')
    : '';
  const titlePart = title(draft, colour);
  const conditionPart = condition(draft);
  const parts: [FixedField, Part][] = [
    ['title', titlePart],
    ['brand', brand(draft)],
    ['category', categoryPart],
    ['condition', conditionPart],
    ['conditionNote', conditionNote(draft, conditionPart.value)],
    ['product', product(draft)],
    ['description', description(draft, input.item.title.trim())],
    ['highlights', highlights(draft)],
    ['tags', tags(draft)],
    ['price', price(draft, content)],
    ['quantity', quantity(draft, content)],
    ['variations', variations(draft, content)],
    ['photos', photos(draft)],
    ['clip', clip(draft)],
    ['weightGrams', weightPart],
    ['size', size(draft)],
    ['sku', stockNumber(draft)],
  ];
  const fixed = parts.map(([field, { faults, ...part }]): ListingValue => {
    const value: ListingValue = { field, label: fixedFieldLabel(field), issues: [], ...part };
    value.issues = faults?.length ? faults : checkFixed(value, input, content);
    note(field, value);
    return value;
  });
  const own = extras.map(({ faults, ...value }, index): ListingValue => {
    const extra = rules.extras[index];
    if (!extra) return value;
    // What is said relative to the price is an amount, once the price there is known.
    value.value = resolveRelative(extra, value.value, content.price, rules.currency);
    note(value.field, value);
    const needed = isNeeded(extra, compiled, categoryPart.value, (field) => content[field]);
    const checked = faults.length
      ? faults
      : checkExtra(value, extra, { rules, needed, content, today: input.account.today });
    return { ...value, issues: checked };
  });
  const values = [...fixed, ...attributes.map(({ exact: _exact, ...value }): ListingValue => value), ...own];
  const issues = values.flatMap((value) => value.issues);
  return {
    accountId: input.account.id,
    values,
    issues,
    ready: issues.every((issue) => !issue.blocks),
    content,
    template: draft.chosen && {
      id: draft.chosen.template.id,
      name: draft.chosen.template.name,
      tiedWith: draft.chosen.tiedWith,
    },
  };
}
