import { itemField } from '../field';
import type { Json } from '../json';
import { engines } from './engines';
import type { Step } from './step';
import { applyVerb } from './verbs';

/** Price and units of an item without combinations. */
export type Numbers = { price: number | null; quantity: number };
export type NumbersResult = Numbers & {
  changed: ('price' | 'quantity')[];
  /** Why the item stays as it is, in plain words. */
  refused: string | null;
};

const price = itemField('price');
const quantity = itemField('quantity');

/** Whether steps concern nothing but price and units of the item, and read nothing else. */
export const isOnNumbers = (steps: readonly Step[]): boolean =>
  steps.every(
    ({ field, where, do: what }) =>
      where.on === 'item' &&
      (field === 'price' || field === 'quantity') &&
      what.verb !== 'formula' &&
      what.verb !== 'solve' &&
      what.verb !== 'take' &&
      what.verb !== 'follow-sales' &&
      what.verb !== 'as-first' &&
      what.verb !== 'follow',
  );

/**
 * The same as `applySteps` for steps on price and units alone, without the rest of the item: a hundred thousand items are
 * read as two numbers each.
 */
export function applyToNumbers(steps: readonly Step[], before: Numbers, currency: string): NumbersResult {
  const now: Numbers = { ...before };
  const refused = (why: string): NumbersResult => ({ ...before, changed: [], refused: why });
  for (const step of steps) {
    const field = step.field === 'price' ? price : quantity;
    if (!field || step.do.verb === 'follow') continue;
    const value = step.field === 'price' ? now.price : now.quantity;
    const outcome = applyVerb(step.do, value, {
      field,
      currency,
      fieldAt: () => undefined,
      engines,
      variables: () => ({}),
    });
    if ('refused' in outcome) return refused(outcome.refused);
    if (outcome.to === value) continue;
    const fault = faultOf(field.id, outcome.to, value);
    if (fault) return refused(fault);
    if (step.field === 'price') now.price = typeof outcome.to === 'number' ? outcome.to : null;
    else now.quantity = Number(outcome.to);
  }
  const changed: NumbersResult['changed'] = [];
  if (now.price !== before.price) changed.push('price');
  if (now.quantity !== before.quantity) changed.push('quantity');
  return { ...now, changed, refused: null };
}

function faultOf(id: string, value: Json, now: number | null): string | null {
  if (id === 'quantity' && typeof value === 'number' && value < 0)
    return `Only ${String(now)} in stock, ${Number(now) - value} cannot be taken away`;
  const checked = (id === 'price' ? price : quantity)?.schema.safeParse(value);
  return !checked || checked.success ? null : (checked.error.issues[0]?.message ?? 'This cannot stand here');
}
