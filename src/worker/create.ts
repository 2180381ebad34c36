import { and, eq, inArray, sql } from 'drizzle-orm';
import type { Content } from '../core/listing';
import { database } from '../db/client';
import { listing } from '../db/schema';
import type { FrozenRequest } from '../db/schema/work';
import type { Connector, RemoteListing } from '../markets';
import { isSwitchedOff } from '../services/records/listings/is-switched-off';
import { endedOpen, type OpenCreate, uncertainFor } from '../services/records/listings/open-create';
import type { JobRow } from './claim';
import { clipIdOf } from './clip';
import type { Sent } from './outcome/sent';
import { freeze, hashesOf, type Lane, type ListingRow, photoIds } from './prepare';

const keyHours = 23;
/** What may stand there is looked for again after so long, in milliseconds. */
const lookEveryMs = 15_000;

/** It may stand there, and is not shown: nothing may be sent before that is settled. */
export class Unsettled extends Error {
  readonly waitMs: number;

  constructor(waitMs: number) {
    super('It may stand there already: it is looked for again');
    this.name = 'Unsettled';
    this.waitMs = waitMs;
  }
}

/**
 * Looks for what an earlier creation may have made, by its stock number.
 * @returns null when it is certain that nothing was made
 * @throws {Unsettled} when that cannot be said yet
 */
export async function findMade(
  lane: Lane,
  connector: Connector,
  { request }: OpenCreate,
  stored: Pick<ListingRow, 'id'>,
): Promise<RemoteListing | null> {
  const wait = uncertainFor(request);
  const found = await connector.findLive(lane.session, String(request.content.sku));
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
  const there = found.find((one) => !taken.some((other) => other.remoteId === one.remoteId));
  if (there) return there;
  if (wait > 0) throw new Unsettled(Math.min(wait, lookEveryMs));
  return null;
}

/**
 * The creation of a listing that may stand there: of this job, or of an earlier one that gave up; when nothing of it is
 * kept any more, all that is known is the stock number under which it would stand there.
 */
export async function openCreate(row: JobRow, content: Content): Promise<OpenCreate> {
  if (row.request?.kind === 'create') return { request: row.request, key: row.idempotencyKey };
  const firstSentAt = (row.createdAt ?? new Date()).toISOString();
  const unknown: FrozenRequest = {
    kind: 'create',
    content: { sku: content.sku ?? '' },
    fields: [],
    photoIds: [],
    firstSentAt,
  };
  return (await endedOpen(row.listingId)) ?? { request: unknown, key: null };
}

/** With a key that is honoured and young enough the same request is simply repeated. */
const mayRepeat = (connector: Connector, { request, key }: OpenCreate): boolean =>
  connector.honoursIdempotencyKey &&
  key !== null &&
  Date.now() - Date.parse(request.firstSentAt) < keyHours * 3_600_000;

/** Makes a listing, or switches on the one that the request names. */
const make = (
  lane: Lane,
  connector: Connector,
  { switchesOn, content, photoIds, clipId }: FrozenRequest,
  key: string,
) => {
  const sending = { content, photoIds, clipId, idempotencyKey: key };
  return switchesOn !== undefined && connector.switchOn
    ? connector.switchOn(lane.session, switchesOn, sending)
    : connector.create(lane.session, sending);
};

/** What was made by a request, earlier or just now. */
export const made = ({ content, switchesOn }: FrozenRequest, remote: RemoteListing): Sent => ({
  outcome: 'created',
  content,
  remote,
  isSwitchedOn: switchesOn !== undefined,
});

/** What is switched on again by publishing it; undefined for what is made anew. */
export const switchedOffId = (connector: Connector, stored: ListingRow): string | undefined =>
  connector.switchOn && isSwitchedOff(stored) ? (stored.remoteId ?? undefined) : undefined;

export async function create(
  lane: Lane,
  connector: Connector,
  row: JobRow,
  stored: ListingRow,
  content: Content,
  open: OpenCreate | null,
): Promise<Sent> {
  if (open) {
    const remote = mayRepeat(connector, open)
      ? await make(lane, connector, open.request, open.key ?? '')
      : await findMade(lane, connector, open, stored);
    if (remote) return { ...made(open.request, remote), earlier: true };
  }
  const ids = await photoIds(lane, connector, hashesOf(content));
  const clipId = await clipIdOf(lane, connector, row, content);
  const request: FrozenRequest = {
    kind: 'create',
    content,
    fields: [],
    photoIds: ids,
    clipId,
    firstSentAt: new Date().toISOString(),
    switchesOn: switchedOffId(connector, stored),
  };
  const { key } = await freeze(lane, row, request);
  return made(request, await make(lane, connector, request, key));
}
