import { z } from 'zod';
import { type PrintTemplate, printTemplateSchema } from '../../artwork/print-template';
import { type Condition, conditionSchema } from '../../filter/filter';
import { matches } from '../../filter/matches';
import type { Item } from '../../item/item';

/** Comparisons as templates of before wrote them, and what they are called now. */
function readOld(said: unknown): unknown {
  if (typeof said !== 'object' || said === null || !('op' in said) || !('value' in said)) return said;
  const { op, value } = said;
  if (op === 'starts') return { ...said, op: 'begins' };
  if (op === 'at-least') return { ...said, op: 'between', value: [value, null] };
  if (op === 'at-most') return { ...said, op: 'between', value: [null, value] };
  return said;
}

/** One condition of a template; all of them must hold. */
export const templateConditionSchema = z.preprocess(readOld, conditionSchema);

/** Conditions as they were stored, also by a release before. */
export const readConditions = (stored: unknown): Condition[] =>
  z.array(templateConditionSchema).safeParse(stored).data ?? [];

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
  conditions: z.array(conditionSchema),
  fields: z.record(z.string(), z.string()),
  /** What artwork is printed on, and how it stands there; null for a template of texts alone. */
  print: printTemplateSchema.nullable().optional(),
  /** A change meant for new items only: items up to this number keep the fields of before. */
  previous: z
    .object({
      untilItem: z.number(),
      fields: z.record(z.string(), z.string()),
      print: printTemplateSchema.nullable().optional(),
    })
    .nullable(),
});
export type Template = z.infer<typeof templateSchema>;

/** How narrow a template is: every condition counts, an exact one more than a vague one, a longer beginning a little. */
const weights: Record<Condition['op'], number> = {
  is: 10,
  oneOf: 9,
  begins: 8,
  ends: 8,
  contains: 6,
  between: 5,
  olderThan: 5,
  empty: 4,
  not: 2,
  filled: 2,
};
const lengthOf = ({ op, value }: Condition): number =>
  op === 'begins' && typeof value === 'string' ? Math.min(1.9, value.length / 50) : 0;
const specificity = (template: Template): number =>
  template.conditions.reduce((sum, one) => sum + weights[one.op] + lengthOf(one), 0);

export type ChosenTemplate = {
  template: Template;
  fields: Record<string, string>;
  print: PrintTemplate | null;
  tiedWith: string[];
};

/** Whether a template says what artwork is printed on, now or to items of before. */
const isOfPrints = (one: Template): boolean => Boolean(one.print ?? one.previous?.print);

/** Templates that say texts, and those that say what artwork is printed on: one of each is chosen. */
const kinds = new WeakMap<readonly Template[], { texts: Template[]; prints: Template[] }>();
function kindsOf(templates: readonly Template[]): { texts: Template[]; prints: Template[] } {
  const known = kinds.get(templates);
  if (known) return known;
  const found = {
    texts: templates.filter((one) => !isOfPrints(one) || Object.keys(one.fields).length > 0),
    prints: templates.filter(isOfPrints),
  };
  kinds.set(templates, found);
  return found;
}
export const textTemplates = (templates: readonly Template[]): Template[] => kindsOf(templates).texts;
export const printTemplates = (templates: readonly Template[]): Template[] => kindsOf(templates).prints;

/**
 * The most specific template whose conditions all hold; one without conditions is the default. Equally specific ones
 * are a tie: the oldest wins and the others are named.
 */
export function chooseTemplate(templates: readonly Template[], item: Item, today: string): ChosenTemplate | null {
  let best: Template | null = null;
  let score = -1;
  let tiedWith: string[] = [];
  for (const template of templates) {
    if (!template.conditions.every((condition) => matches(condition, { item, today }))) continue;
    const own = specificity(template);
    if (own > score) {
      best = template;
      score = own;
      tiedWith = [];
    } else if (own === score) tiedWith.push(template.name);
  }
  if (!best) return null;
  const isOld = best.previous !== null && item.id <= best.previous.untilItem;
  const { fields, print = null } = isOld && best.previous ? best.previous : best;
  return { template: best, fields, print, tiedWith };
}
