import { openSellerElsewhere } from '../../demo/list-elsewhere';
import type { Session } from '../../src/markets';
import { stack } from './stack';

/** A shop of its own on a marketplace, with room to breathe, and a conversation in its name. */
export const openSeller = (market: string, name: string, exceptions: Record<string, unknown> = {}): Promise<Session> =>
  openSellerElsewhere(stack.markets, market, name, exceptions);
