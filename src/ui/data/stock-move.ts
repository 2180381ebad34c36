import type { RequestOf } from './api';

type Move = RequestOf<'POST /items/{id}/stock'>['body'];
type Reason = Extract<Move, { how: 'add' }>['reason'];

/** Adding and setting are two different things; only what is added has a reason. */
export const stockMove = (how: 'add' | 'set', units: number, more: { reason?: Reason; note?: string } = {}): Move =>
  how === 'add' ? { how, units, ...more } : { how, units, note: more.note };
