import { z } from 'zod';
import { type Catalogue, type Field, type FieldPlace, fieldsFor } from '../field';
import { doSchema, isFor, sayVerb } from './verbs';

/**
 * Where a step works: on the item itself, on what chosen accounts get, on what is written for single accounts already, or on
 * the combinations that have these values (axis → values; an axis that is not named may have any).
 */
const whereSchema = z.discriminatedUnion('on', [
  z.object({ on: z.literal('item') }).strict(),
  z
    .object({ on: z.literal('accounts'), accounts: z.array(z.number().int()).min(1, 'Choose an account').max(100) })
    .strict(),
  z.object({ on: z.literal('overrides') }).strict(),
  z
    .object({
      on: z.literal('combinations'),
      of: z.record(z.string().max(40), z.array(z.string().max(60)).min(1).max(100)),
    })
    .strict(),
]);
export type Where = z.infer<typeof whereSchema>;

const placeOf = ({ on }: Where): FieldPlace =>
  on === 'item' ? 'item' : on === 'combinations' ? 'combination' : 'listing';

/** One step of a change: a field, where, and what is done with it. */
export const stepSchema = z
  .object({
    field: z.string().min(1).max(80),
    where: whereSchema.default({ on: 'item' }),
    do: z.union([doSchema, z.object({ verb: z.literal('follow') }).strict()]),
  })
  .strict();

export type Step = z.infer<typeof stepSchema>;

/** A step on the item itself, with what is left out filled in. */
export const onItem = (field: string, what: z.input<typeof doSchema>): Step => stepSchema.parse({ field, do: what });

/** The field that a step changes. */
export function fieldOf(step: Pick<Step, 'field' | 'where'>, catalogue: Catalogue): Field | undefined {
  const place = placeOf(step.where);
  return place === 'item'
    ? catalogue.item(step.field)
    : place === 'combination'
      ? catalogue.combination(step.field)
      : catalogue.listing(step.field);
}

/** The table of combinations and a parcel's sides have ways of their own. */
const closed = ['combinations', 'size'];

/** Why a step cannot be carried out on anything, in a sentence; null when it can. */
export function stepFault(step: Step, catalogue: Catalogue): string | null {
  const field = fieldOf(step, catalogue);
  if (!field || closed.includes(field.kind.is) || field.traits.byItself)
    return `There is no field ${step.field} to change`;
  if (field.id === 'sku' && placeOf(step.where) === 'listing') return 'The stock number is the same everywhere';
  const { verb } = step.do;
  if (field.id === 'target' && (verb === 'follow' || step.where.on !== 'accounts'))
    return 'Say for which accounts the items are meant';
  if (verb === 'follow')
    return placeOf(step.where) === 'listing' ? null : 'Only what is written for an account can follow the item';
  if (verb === 'as-first' && step.where.on !== 'combinations') return 'Only combinations are filled down';
  if (verb === 'follow-sales' && placeOf(step.where) !== 'item')
    return 'Sales are compared for the item: an account’s price follows from it';
  if (verb === 'solve' && (step.where.on === 'item' || step.where.on === 'combinations'))
    return 'A wanted net is reached account by account: choose accounts';
  // Of a marketplace's own fields the kind hangs on its rules: what comes of it is checked when it is carried out.
  if (placeOf(step.where) === 'listing') return null;
  if (!isFor(verb, field)) return `${field.label} has no such change`;
  if (verb === 'set') {
    const checked = field.schema.safeParse(step.do.value);
    if (!checked.success) return checked.error.issues[0]?.message ?? 'This cannot stand here';
  }
  return null;
}

const plain = fieldsFor();

/** A step in words, as it stands in the history. */
export function sayStep(
  step: Step,
  currency: string,
  catalogue: Catalogue = plain,
  accountName?: (id: number) => string,
): string {
  const field = fieldOf(step, catalogue);
  const { where } = step;
  const place =
    where.on === 'accounts'
      ? ` on ${where.accounts.map((id) => accountName?.(id) ?? `account ${id}`).join(', ')}`
      : where.on === 'overrides'
        ? ' where an account has its own'
        : where.on === 'combinations'
          ? ` of ${Object.values(where.of).flat().join(', ') || 'all combinations'}`
          : '';
  const what = field
    ? step.do.verb === 'follow'
      ? 'follows the item again'
      : sayVerb(step.do, { field, currency })
    : step.do.verb;
  return `${(field?.label ?? step.field).toLowerCase()}${place} ${what}`;
}
