import { type Step, stepSchema } from './step';

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** The forms in which steps on price, stock and title were written before there were verbs for every field. */
const older: Record<string, (given: Record<string, unknown>) => unknown> = {
  'price-percent': ({ op: _op, ...rest }) => ({ field: 'price', do: { verb: 'percent', ...rest } }),
  'price-amount': ({ op: _op, ...rest }) => ({ field: 'price', do: { verb: 'amount', ...rest } }),
  'price-set': ({ amount }) => ({ field: 'price', do: { verb: 'set', value: amount } }),
  'quantity-set': ({ quantity }) => ({ field: 'quantity', do: { verb: 'set', value: quantity } }),
  'quantity-add': ({ delta }) => ({ field: 'quantity', do: { verb: 'add', by: delta } }),
  'title-before': ({ text }) => ({ field: 'title', do: { verb: 'before', text } }),
};

/** A step that was kept: one in the form of before is read as what it meant. */
export function readKeptStep(kept: unknown): Step {
  const isOlder = isRecord(kept) && typeof kept.op === 'string' && Object.hasOwn(older, kept.op);
  return stepSchema.parse(isOlder ? older[String(kept.op)]?.(kept) : kept);
}
