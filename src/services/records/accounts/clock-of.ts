import type { TheirClock } from '../../../core/sync';
import type { AccountRow } from '../../../db/schema';

/** What is known of the clock of an account's marketplace. */
export const clockOf = ({
  clockAheadMs,
  clockBeforeMs,
  clockChangedAt,
}: Pick<AccountRow, 'clockAheadMs' | 'clockBeforeMs' | 'clockChangedAt'>): TheirClock => ({
  aheadMs: clockAheadMs,
  beforeMs: clockBeforeMs,
  changedAt: clockChangedAt,
});
