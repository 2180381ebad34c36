import type { AccountRow } from '../../../db/schema';
import { connectorOf } from '../../../markets';

const everyMs = 60_000;
/** Marketplaces without events are asked often: a sale there must be heard of soon. */
const withoutEventsMs = 5_000;

/** How often an account is asked for its orders, besides the events that it sends. */
export const hearingEveryMs = (market: string): number => (connectorOf(market).hasWebhooks ? everyMs : withoutEventsMs);

/**
 * Since when an account has not been heard, where that is longer ago than three of its intervals; null when it is heard,
 * or when a person knows already: it is paused, locked or has to be connected again.
 */
export function unheardSince(
  row: Pick<AccountRow, 'market' | 'state' | 'pausedAt' | 'lockedUntil' | 'heardAt' | 'createdAt'>,
  now: Date,
): Date | null {
  if (row.state !== 'connected' || row.pausedAt || (row.lockedUntil && row.lockedUntil > now)) return null;
  const last = row.heardAt ?? row.createdAt;
  return now.getTime() - last.getTime() > 3 * hearingEveryMs(row.market) ? last : null;
}
