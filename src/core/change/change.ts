import type { Json } from '../json';

/** What a change is of: an item, one of its combinations, or what is written for one account alone. */
export type Target = {
  item: number;
  /** Written for this account alone. */
  account?: number;
  /** The combination's own key. */
  combination?: string;
};

/**
 * One value that becomes another. `from`: what it was when the change was thought of; given, it is compared, and a value
 * that somebody else changed meanwhile is not overwritten. A missing `to` on an override: follow the item again.
 */
export type Change = { target: Target; field: string; from?: Json; to?: Json };

/** A change as it was carried out. */
export type DoneChange = { target: Target; field: string; from: Json; to: Json };

export type RefusalKind = 'conflict' | 'invalid' | 'sku-taken' | 'not-found';

/** Why an item stays as it is. An item changes whole or not at all. */
export type Refusal = { item: number; field: string; kind: RefusalKind; why: string; now?: Json };
