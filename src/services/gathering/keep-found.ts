import { sql } from 'drizzle-orm';
import { toldBy } from '../../core/gather';
import type { Executor } from '../../db/client';
import { foundListing } from '../../db/schema';
import type { RemoteListing } from '../../markets';
import type { LoadedAccount } from '../records/accounts/load-accounts';

const textOf = (value: unknown, most: number) => (typeof value === 'string' ? value.slice(0, most) : '');
const numberOf = (value: unknown) => (typeof value === 'number' && Number.isInteger(value) ? value : null);
const dateOf = (value: Date | null) => value?.toISOString() ?? null;

/** What the shop calls the part that a listing stands in: its own section, or else the category's name. */
function sectionOf({ content }: RemoteListing, { compiled }: LoadedAccount): string {
  const section = textOf(content['extra.section'], 60);
  const [collection] = Array.isArray(content['extra.collections']) ? content['extra.collections'] : [];
  const category = compiled.categoryById.get(textOf(content.category, 60))?.name ?? '';
  return section || textOf(collection, 60) || category.slice(0, 60);
}

/** Keeps listings as they stood on an account when they were read; what was fetched of their photos stays. */
export async function keepFound(
  db: Executor,
  account: LoadedAccount,
  listings: readonly RemoteListing[],
  readAt: Date,
): Promise<void> {
  if (listings.length === 0) return;
  const rows = listings.map((one) => ({
    accountId: account.id,
    remoteId: one.remoteId.slice(0, 60),
    url: one.url.slice(0, 300),
    state: one.state,
    sku: one.sku.slice(0, 100),
    title: (toldBy(one.content, account, one.called).fields.title ?? '').slice(0, 300),
    section: sectionOf(one, account),
    price: numberOf(one.content.price),
    quantity: numberOf(one.content.quantity),
    content: one.content,
    photos: one.photos.slice(0, 60),
    facts: {
      called: one.called.slice(0, 300),
      renewsAt: dateOf(one.renewsAt),
      endsAt: dateOf(one.endsAt),
      offersOpen: one.offersOpen,
      bids: one.bids,
      highestBid: one.highestBid,
    },
    madeAt: one.madeAt ?? readAt,
    readAt,
  }));
  const columns = ['url', 'state', 'sku', 'title', 'section', 'price', 'quantity', 'content', 'facts', 'made_at'];
  const fresh = Object.fromEntries(
    columns.map((column) => [column === 'made_at' ? 'madeAt' : column, sql.raw(`values(\`${column}\`)`)]),
  );
  await db
    .insert(foundListing)
    .values(rows)
    .onDuplicateKeyUpdate({
      set: {
        // Other photos than before are fetched anew.
        hashes: sql`if(json_equals(${foundListing.photos}, values(\`photos\`)), ${foundListing.hashes}, null)`,
        photos: sql`values(\`photos\`)`,
        readAt: sql`values(\`read_at\`)`,
        ...fresh,
      },
    });
}
