import type { Context, Hono } from 'hono';
import type { Listings } from './listings';
import type { Data, Json, Listing, Market, SellerEnv } from './types';
import type { World } from './world';

/** What a marketplace's own routes work with. */
export type Tools = {
  world: World;
  market: Market;
  listings: Listings;
  /** A listing as its owner sees it. */
  shown(listing: Listing, origin: string): Data;
  /** At most once per Idempotency-Key, where this marketplace honours it. */
  once(c: Context<SellerEnv>, body: Data, work: () => Promise<Response>): Promise<Response>;
};

/** A marketplace with routes that only it has. */
export type RoutedMarket = Market & {
  routes?(app: Hono<SellerEnv>, tools: Tools): void;
  /** Deeds of the control room that only it has, by their names; a sentence says why one cannot be done. */
  deeds?: Record<string, (world: World, given: Record<string, Json>) => Promise<Json | string>>;
  /** What the control room shows of it besides. */
  controlPart?(world: World): string;
};
