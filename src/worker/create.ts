import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import type { Content } from '../core/listing';
import { database } from '../db/client';
import { job, listing } from '../db/schema';
import type { FrozenRequest } from '../db/schema/work';
import type { Connector, RemoteListing } from '../markets';
import type { JobRow } from './claim';
import type { Sent } from './finish';
import { freeze, hashesOf, type Lane, type ListingRow, photoIds } from './prepare';

const keyHours = 23;

/**
 * An earlier try may have got through. With a key that is honoured and young enough the same request is simply
 * repeated; else the listing is looked for by its stock number, and taken over when it is there.
 */
async function repeatCreate(
  lane: Lane,
  connector: Connector,
  key: string | null,
  frozen: FrozenRequest,
  stored: ListingRow,
): Promise<RemoteListing | null> {
  const young = Date.now() - Date.parse(frozen.firstSentAt) < keyHours * 3_600_000;
  if (connector.honoursIdempotencyKey && young && key) {
    return connector.create(lane.session, { content: frozen.content, photoIds: frozen.photoIds, idempotencyKey: key });
  }
  const found = await connector.findLive(lane.session, String(frozen.content.sku));
  const taken = await database()
    .select({ remoteId: listing.remoteId })
    .from(listing)
    .where(
      and(
        eq(listing.accountId, lane.account.id),
        sql`${listing.id} <> ${stored.id}`,
        inArray(listing.remoteId, ['', ...found.map((one) => one.remoteId)]),
      ),
    );
  return found.find((one) => !taken.some((other) => other.remoteId === one.remoteId)) ?? null;
}

/** A create of this listing that was sent and never answered: of this job, or of an earlier one that gave up. */
export async function openCreate(row: JobRow): Promise<{ request: FrozenRequest; key: string | null } | null> {
  if (row.request?.kind === 'create') return { request: row.request, key: row.idempotencyKey };
  const [earlier] = await database()
    .select({ request: job.request, key: job.idempotencyKey })
    .from(job)
    .where(
      and(
        eq(job.listingId, row.listingId),
        inArray(job.state, ['failed', 'skipped']),
        sql`json_value(${job.request}, '$.kind') = 'create'`,
        sql`${job.id} > coalesce((select max(d.id) from job d where d.listing_id = ${row.listingId} and d.state = 'done' and d.outcome = 'created'), 0)`,
      ),
    )
    .orderBy(desc(job.id))
    .limit(1);
  return earlier?.request ? { request: earlier.request, key: earlier.key } : null;
}

export async function create(
  lane: Lane,
  connector: Connector,
  row: JobRow,
  stored: ListingRow,
  content: Content,
  open: Awaited<ReturnType<typeof openCreate>>,
): Promise<Sent> {
  if (open) {
    const repeated = await repeatCreate(lane, connector, open.key, open.request, stored);
    if (repeated) return { outcome: 'created', content: open.request.content, remote: repeated, earlier: true };
  }
  const ids = await photoIds(lane, connector, hashesOf(content));
  const { key } = await freeze(row, {
    kind: 'create',
    content,
    fields: [],
    photoIds: ids,
    firstSentAt: new Date().toISOString(),
  });
  return {
    outcome: 'created',
    content,
    remote: await connector.create(lane.session, { content, photoIds: ids, idempotencyKey: key }),
  };
}
