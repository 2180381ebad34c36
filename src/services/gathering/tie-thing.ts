import { and, eq, inArray, sql } from 'drizzle-orm';
import type { Change } from '../../core/change';
import { type KeptAsShown, keptAsShown } from '../../core/gather';
import type { Item } from '../../core/item';
import type { Content, Overrides } from '../../core/listing';
import { alikeWithin, type PhotoPrint, printsApart } from '../../core/match';
import type { Tx } from '../../db/client';
import { type FoundRow, foundListing, listing, mapping, remotePhoto } from '../../db/schema';
import { connectorOf } from '../../markets';
import { commitItems } from '../changes/commit/commit-items';
import { linkListing } from '../listings/links/link-listing';
import type { LoadedAccount } from '../records/accounts/load-accounts';
import { cleanRichText } from '../records/items/clean-rich-text';
import { loadItem } from '../records/items/load-items';
import { computeRow } from '../records/listings/compute-row';
import { refreshListings } from '../records/listings/refresh-listings';
import { knownPhotos } from '../records/photos/known-photos';
import { printsOf } from '../records/photos/photo-prints';
import type { Maker } from './maker';

const dateOf = (text: string | null) => (text === null ? null : new Date(text));
const isThere = ({ state }: FoundRow) => state === 'live' || state === 'review';

/** What they show, in the words in which we would keep it: of rich text only what is written here at all. */
function keepable(content: Content, { compiled }: LoadedAccount): Content {
  const { description } = content;
  return compiled.rules.description?.format === 'rich' && typeof description === 'string'
    ? { ...content, description: cleanRichText(description) }
    : content;
}

/** What has to be written for an account so that its listing stays as it is. */
function keptFor(item: Item, row: FoundRow, account: LoadedAccount, first: Overrides): KeptAsShown {
  const connector = connectorOf(account.row.market);
  // What has no place there at all is not shown either.
  const hides = (field: string) =>
    connector.hides.includes(field) || connector.shownWith([field], [field]).length === 0;
  const facts = { remote: row.state, remoteId: row.remoteId, sent: row.content, timesMade: 1 };
  const wanted = (overrides: Overrides) => computeRow(item, { ...facts, overrides }, account).content;
  return keptAsShown(keepable(row.content, account), wanted, hides, first);
}

/** Their photos by the item's own that show the same: which to choose for this account, and what each is called there. */
function photosThere(
  item: Item,
  row: FoundRow,
  prints: ReadonlyMap<string, PhotoPrint>,
): { chosen: string[] | null; named: { hash: string; remoteId: string }[] } {
  const own = item.photos.map((one) => one.hash);
  const matched = (row.hashes ?? []).map((hash) => {
    if (hash === null) return null;
    if (own.includes(hash)) return hash;
    const print = prints.get(hash);
    const near = own
      .flatMap((one) => {
        const other = prints.get(one);
        const apart = print && other ? printsApart(print, other, alikeWithin) : Number.POSITIVE_INFINITY;
        return Number.isFinite(apart) ? [{ one, apart }] : [];
      })
      .sort((a, b) => a.apart - b.apart);
    return near[0]?.one ?? null;
  });
  const named = matched.flatMap((hash, at) => {
    const photo = row.photos[at];
    return hash !== null && photo ? [{ hash, remoteId: photo.id }] : [];
  });
  const all = matched.filter((one) => one !== null);
  const isWhole = all.length === matched.length && new Set(all).size === all.length && all.length > 0;
  return { chosen: isWhole ? all : null, named };
}

/** A catalogue's product that a listing was made on is known from now on. */
async function keepProduct(tx: Tx, row: FoundRow, account: LoadedAccount, item: Item, byName: string): Promise<void> {
  const product = row.content.product;
  const digits = item.barcode.replace(/[^\dX]/gi, '');
  if (typeof product !== 'string' || !product || !digits) return;
  const category = row.content.category;
  await tx
    .insert(mapping)
    .values({
      market: account.row.market,
      kind: 'product',
      attribute: '',
      source: `code:${digits}`,
      target: product.slice(0, 190),
      detail: { name: row.facts.called || row.title, categoryId: typeof category === 'string' ? category : null },
      byName,
      at: new Date(),
    })
    .onDuplicateKeyUpdate({ set: { market: sql`market` } });
}

/**
 * Links the listings of one thing with its item. What they show stands for what was sent; what the item would say
 * otherwise there is written for that account alone, so that nothing that is live changes.
 * @param photos what its photos are to be; as they are where there are none
 */
export async function tieThing(
  tx: Tx,
  { itemId, rows, photos }: { itemId: number; rows: readonly FoundRow[]; photos: readonly string[] },
  maker: Maker,
): Promise<void> {
  const { actor, accounts } = maker;
  const stored = await loadItem(tx, itemId);
  const given = await knownPhotos(tx, photos);
  const item = photos.length
    ? { ...stored, photos: photos.flatMap((hash) => given.find((one) => one.hash === hash) ?? []) }
    : stored;
  const hashes = [...item.photos.map((one) => one.hash), ...rows.flatMap((row) => row.hashes ?? [])];
  const prints = await printsOf(
    tx,
    hashes.filter((one) => one !== null),
  );
  const drafted = await tx
    .select({ accountId: listing.accountId, overrides: listing.overrides })
    .from(listing)
    .where(eq(listing.itemId, itemId));
  const changes: Change[] = photos.length ? [{ target: { item: itemId }, field: 'photos', to: [...photos] }] : [];
  const linked: { row: FoundRow; sent: Content }[] = [];
  for (const row of rows) {
    const account = accounts.get(row.accountId);
    if (!account) continue;
    const { chosen, named } = photosThere(item, row, prints);
    const written = drafted.find((one) => one.accountId === row.accountId)?.overrides ?? {};
    const facts = { overrides: written, remote: row.state, remoteId: row.remoteId, sent: row.content, timesMade: 1 };
    const usual = computeRow(item, facts, account).content.photos;
    const usualHashes = Array.isArray(usual) ? usual.map((one) => String(one).split('~')[0]) : [];
    const differs = chosen !== null && JSON.stringify(chosen) !== JSON.stringify(usualHashes);
    const { overrides, sent } = keptFor(item, row, account, { ...written, ...(differs ? { photos: chosen } : {}) });
    const fault = isThere(row)
      ? await linkListing(tx, itemId, row.accountId, {
          remoteId: row.remoteId,
          url: row.url,
          state: row.state === 'review' ? 'review' : 'live',
          content: row.content,
          renewsAt: dateOf(row.facts.renewsAt),
          endsAt: dateOf(row.facts.endsAt),
          offersOpen: row.facts.offersOpen,
          bids: row.facts.bids,
          highestBid: row.facts.highestBid,
        })
      : null;
    await tx
      .update(foundListing)
      .set({ itemId: fault ? null : itemId, said: fault ?? row.said })
      .where(eq(foundListing.id, row.id));
    if (fault) continue;
    if (isThere(row)) linked.push({ row, sent });
    // What is not live there stays a draft, with what it said.
    else changes.push({ target: { item: itemId, account: row.accountId }, field: 'target', to: true });
    for (const [field, to] of Object.entries(overrides))
      changes.push({ target: { item: itemId, account: row.accountId }, field, to });
    if (named.length)
      await tx
        .insert(remotePhoto)
        .values(named.map((one) => ({ accountId: row.accountId, ...one, at: new Date() })))
        .onDuplicateKeyUpdate({ set: { at: sql`values(\`at\`)` } });
    await keepProduct(tx, row, account, item, actor.name);
  }
  if (changes.length)
    await commitItems(tx, [itemId], () => changes, {
      actor,
      why: 'import',
      at: new Date(),
      send: 'falls',
      accounts: [...accounts.values()],
      photos: given,
    });
  for (const { row, sent } of linked)
    await tx
      .update(listing)
      .set({ sent })
      .where(and(eq(listing.itemId, itemId), inArray(listing.accountId, [row.accountId])));
  await refreshListings(tx, [itemId], [...accounts.values()]);
}
