import type { Refusal } from '../../../core/change';
import { type ErrorCode, NettingError } from '../../../core/errors';
import type { Committed } from './commit-items';

const codes: Record<Refusal['kind'], ErrorCode> = {
  conflict: 'conflict',
  invalid: 'invalid',
  'sku-taken': 'sku-taken',
  'not-found': 'not-found',
};
const fixes: Partial<Record<Refusal['kind'], string>> = {
  conflict: 'Compare both and choose',
  'sku-taken': 'Choose another one',
};

/** A refusal as the error that a person meets, at the field that it is about. */
export const refusalError = ({ kind, why, field, now }: Refusal): NettingError =>
  new NettingError(codes[kind], why, {
    field,
    fix: fixes[kind],
    details: [{ field, message: kind === 'conflict' ? JSON.stringify(now ?? null) : why }],
  });

/** Everything went through, or the first refusal is thrown, and with it the caller's transaction ends. */
export function allCommitted(committed: Committed): Committed {
  const [first] = committed.refused;
  if (first) throw refusalError(first);
  return committed;
}
