import { createHash } from 'node:crypto';
import { signatureOf } from '../../core/table';

/** One number for a set of column names in any order. */
export const signatureHash = (headers: readonly string[]): string =>
  createHash('sha256').update(signatureOf(headers)).digest('hex');
