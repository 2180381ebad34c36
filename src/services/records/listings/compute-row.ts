import type { Item } from '../../../core/item';
import { type ComputedListing, type Content, computeListing, type ListingInput } from '../../../core/listing';
import { diff } from '../../../core/sync';
import type { ListingRow } from '../../../db/schema';
import type { LoadedAccount } from '../accounts/load-accounts';
import { isSwitchedOff } from './is-switched-off';

const numberOr = (value: unknown, fallback: number | null) => (typeof value === 'number' ? value : fallback);

const isThere = (row: Pick<ListingRow, 'remote'>) => row.remote === 'live' || row.remote === 'review';

/** What a listing is computed from: the item, what is written for this marketplace, and what it is called there. */
export function inputOf(
  item: Item,
  row: Pick<ListingRow, 'overrides' | 'remote' | 'remoteId' | 'sent' | 'timesMade'> | undefined,
  account: LoadedAccount,
): ListingInput {
  const hasNumber = row && (isThere(row) || isSwitchedOff(row));
  const numberThere = hasNumber && typeof row.sent?.sku === 'string' ? row.sent.sku : null;
  return { item, overrides: row?.overrides ?? {}, account, numberThere, timesMade: row?.timesMade ?? 0 };
}

export const computeRow = (item: Item, row: Parameters<typeof inputOf>[1], account: LoadedAccount): ComputedListing =>
  computeListing(inputOf(item, row, account));

/** The columns of a listing row that follow from its computed content. */
export function derivedColumns(
  row: Pick<ListingRow, 'remote' | 'sent' | 'overrides'>,
  computed: ComputedListing,
  account: LoadedAccount,
) {
  const { content } = computed;
  // Price and quantity are compared by their columns; of one that is not known what they hold, that alone differs.
  const isKnown = (field: string) => typeof row.sent?.[field] === 'number' || typeof content[field] !== 'number';
  const apart = (one: Content): Content =>
    Object.fromEntries(
      Object.entries(one).filter(([field]) => (field !== 'price' && field !== 'quantity') || !isKnown(field)),
    );
  const cap = Math.min(account.compiled.rules.quantity.max, account.stock?.cap ?? 1_000_000);
  return {
    overridePrice: numberOr(row.overrides.price, null),
    wantedPrice: numberOr(content.price, null),
    wantedQuantity: numberOr(content.quantity, 0) ?? 0,
    quantityCap: Math.min(cap, numberOr(row.overrides.quantity, cap) ?? cap),
    contentDirty: isThere(row) && row.sent !== null && diff(apart(row.sent), apart(content)).length > 0,
    // An item that is sold out is no fault of the record: such a listing ends, nothing has to be mended.
    blocking: computed.issues.filter((issue) => issue.blocks && issue.code !== 'quantity-none').length,
  };
}

export type Derived = ReturnType<typeof derivedColumns>;
