import { z } from 'zod';
import { fieldValue } from '../../field/item-values';
import { ownText } from '../../item/custom-fields';
import type { Item } from '../../item/item';
import { ownValue } from '../../json';

export const templateOperators = ['is', 'not', 'contains', 'starts', 'at-least', 'at-most'] as const;

/** One condition of a template: an item's field or attribute, compared with a value. Words are compared without case. */
export const templateConditionSchema = z
  .object({
    field: z.string().min(1).max(80).describe('An item field, or `attributes.<name>`'),
    op: z.enum(templateOperators),
    value: z.string().min(1).max(200),
  })
  .strict();
export type TemplateCondition = z.infer<typeof templateConditionSchema>;

/** Field id → text with variables, as in `{{ brand }} {{ model }}`. */
export const templateFieldsSchema = z.record(
  z
    .string()
    .regex(/^(title|description|footer|highlights|tags|conditionNote|extra\.[\w-]+)$/, 'There is no such field'),
  z.string().max(20_000),
);

/** A text, or part of one, that is chosen by rule and filled from the item. */
export const templateSchema = z.object({
  id: z.number(),
  name: z.string(),
  conditions: z.array(templateConditionSchema),
  fields: z.record(z.string(), z.string()),
  /** A change meant for new items only: items up to this number keep the fields of before. */
  previous: z
    .object({
      untilItem: z.number(),
      fields: z.record(z.string(), z.string()),
    })
    .nullable(),
});
export type Template = z.infer<typeof templateSchema>;

const folded = (text: string) => text.toLowerCase().trim();

/** What a field of the item says, as conditions compare it: plain numbers, words of a list apart by commas. */
function said(item: Item, field: string): string {
  if (field.startsWith('own.')) return ownText(ownValue(item.own, field.slice('own.'.length)));
  const value = fieldValue(item, field);
  if (Array.isArray(value)) return value.map(String).join(', ');
  return value === null || typeof value === 'object' ? '' : String(value);
}

function holds(item: Item, { field, op, value }: TemplateCondition): boolean {
  const text = said(item, field);
  switch (op) {
    case 'is':
      return folded(text) === folded(value);
    case 'not':
      return folded(text) !== folded(value);
    case 'contains':
      return folded(text).includes(folded(value));
    case 'starts':
      return folded(text).startsWith(folded(value));
    case 'at-least':
      return text !== '' && Number(text) >= Number(value);
    case 'at-most':
      return text !== '' && Number(text) <= Number(value);
  }
}

/** How narrow a template is: every condition counts, an exact one more than a vague one, a longer beginning a little. */
const weights = { is: 10, starts: 8, contains: 6, 'at-least': 5, 'at-most': 5, not: 2 } as const;
const specificity = (template: Template): number =>
  template.conditions.reduce(
    (sum, one) => sum + weights[one.op] + (one.op === 'starts' ? Math.min(1.9, one.value.length / 50) : 0),
    0,
  );

export type ChosenTemplate = { template: Template; fields: Record<string, string>; tiedWith: string[] };

/**
 * The most specific template whose conditions all hold; one without conditions is the default. Equally specific ones
 * are a tie: the oldest wins and the others are named.
 */
export function chooseTemplate(templates: readonly Template[], item: Item): ChosenTemplate | null {
  let best: Template | null = null;
  let score = -1;
  let tiedWith: string[] = [];
  for (const template of templates) {
    if (!template.conditions.every((condition) => holds(item, condition))) continue;
    const own = specificity(template);
    if (own > score) {
      best = template;
      score = own;
      tiedWith = [];
    } else if (own === score) tiedWith.push(template.name);
  }
  if (!best) return null;
  const isOld = best.previous !== null && item.id <= best.previous.untilItem;
  return { template: best, fields: isOld && best.previous ? best.previous.fields : best.fields, tiedWith };
}
