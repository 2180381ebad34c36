import { randomBytes } from 'node:crypto';

/** A key for a combination that is new, never given before. */
export const newCombinationKey = (): string => randomBytes(6).toString('hex');
