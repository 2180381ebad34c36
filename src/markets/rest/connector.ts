import { z } from 'zod';
import type { Connector, OfferReply, Sending } from '../connector';
import type { Session } from '../session';
import { accountSchema, ownListsSchema, partsWith } from './account';
import { listingReader, pageSchema } from './listing';
import type { RestManner, Wire } from './manner';
import { offerOf, offerSchema } from './offer';
import { linesOf, orderPageSchema, orderSchema } from './order';
import { withOurField } from './our-field';

/** A connector made of one marketplace's manner. */
export function restConnector(manner: RestManner): Connector {
  const { listings, photos } = manner.paths;
  const listing = listingReader(manner);
  const { market, name, about, access, honoursIdempotencyKey, hasWebhooks } = manner;
  const call = (
    session: Session,
    method: 'GET' | 'POST' | 'PATCH',
    path: string,
    body?: unknown,
    idempotencyKey?: string,
  ) =>
    session.send({ method, path, body, idempotencyKey }).catch((error: unknown) => {
      throw withOurField(error, manner);
    });

  /** Their fields; a clip is named as they call it, and left out where they have none of it. */
  const wired = ({ content, photoIds, clipId, before }: Omit<Sending, 'idempotencyKey'>) =>
    manner.toWire(content.clip === undefined ? content : { ...content, clip: clipId ?? '' }, photoIds, before);

  const deed = async (
    session: Session,
    remoteId: string,
    verb: 'end' | 'off' | 'on',
    idempotencyKey: string,
    body: Wire = {},
  ) =>
    listing(await call(session, 'POST', `/${listings}/${encodeURIComponent(remoteId)}/${verb}`, body, idempotencyKey));

  return {
    market,
    name,
    about,
    access,
    honoursIdempotencyKey,
    hasWebhooks,
    linesAtOnce: manner.linesAtOnce ?? null,
    hides: manner.hides ?? [],
    readRules: async (session) => manner.rules(await call(session, 'GET', '/rules')),
    async readAccount(session) {
      const me = accountSchema.parse(await call(session, 'GET', '/me'));
      const limits = Object.fromEntries(
        Object.entries(me.exceptions).filter((one): one is [string, number] => typeof one[1] === 'number'),
      );
      const { newPerDay, perMinute, ...others } = limits;
      const lists = ownListsSchema.parse(me.exceptions.lists ?? {});
      const hasOwn = Object.keys(others).length + Object.keys(lists).length > 0;
      const parts = hasOwn
        ? partsWith(manner, await call(session, 'GET', '/rules'), { limits: others, lists })
        : undefined;
      return {
        remoteName: me.name,
        exceptions: {
          ...(newPerDay ? { newPerDay } : {}),
          ...(perMinute ? { perMinute } : {}),
          ...(parts ? { parts } : {}),
        },
        lockedUntil: me.lockedUntil ? new Date(me.lockedUntil) : null,
        warned: me.warned ?? false,
      };
    },
    create: async (session, { idempotencyKey, ...sending }) =>
      listing(await call(session, 'POST', `/${listings}`, wired(sending), idempotencyKey)),
    async change(session, remoteId, { idempotencyKey, ...sending }, fields) {
      const whole = wired(sending);
      const body = Object.fromEntries(manner.wireFields(fields).map((field) => [field, whole[field] ?? null]));
      return listing(
        await call(session, 'PATCH', `/${listings}/${encodeURIComponent(remoteId)}`, body, idempotencyKey),
      );
    },
    shownWith(sent, among) {
      const places = new Set(manner.wireFields(sent));
      return among.filter((field) => manner.wireFields([field]).some((place) => places.has(place)));
    },
    end: (session, remoteId, idempotencyKey) =>
      manner.switchesOff
        ? deed(session, remoteId, 'off', idempotencyKey)
        : deed(session, remoteId, 'end', idempotencyKey),
    ...(manner.switchesOff
      ? {
          remove: (session: Session, remoteId: string, idempotencyKey: string) =>
            deed(session, remoteId, 'end', idempotencyKey),
          switchOn: (session: Session, remoteId: string, { idempotencyKey, ...sending }: Sending) =>
            deed(session, remoteId, 'on', idempotencyKey, wired(sending)),
        }
      : {}),
    read: async (session, remoteId) =>
      listing(await call(session, 'GET', `/${listings}/${encodeURIComponent(remoteId)}`)),
    async findLive(session, sku) {
      const page = pageSchema.parse(await call(session, 'GET', `/${listings}?reference=${encodeURIComponent(sku)}`));
      // One that waits for its review is there, too.
      return page.listings
        .map(listing)
        .filter((one) => one.sku === sku && (one.state === 'live' || one.state === 'review'));
    },
    async listPage(session, after) {
      const page = pageSchema.parse(
        await call(session, 'GET', `/${listings}?limit=200${after ? `&after=${encodeURIComponent(after)}` : ''}`),
      );
      return { listings: page.listings.map(listing), next: page.next };
    },
    async uploadPhoto(session, jpeg) {
      const answer = await session.send({ method: 'POST', path: `/${photos}`, bytes: jpeg });
      return z.object({ id: z.string().min(1).max(80) }).parse(answer).id;
    },
    ...(manner.paths.clips
      ? {
          async uploadClip(session: Session, mp4: Buffer) {
            const answer = await session.send({ method: 'POST', path: `/${manner.paths.clips}`, bytes: mp4 });
            return z.object({ id: z.string().min(1).max(80) }).parse(answer).id;
          },
        }
      : {}),
    readOrder: async (session, orderId) =>
      linesOf(orderSchema.parse(await call(session, 'GET', `/orders/${encodeURIComponent(orderId)}`))),
    async ordersSince(session, since, after) {
      const from = after === null ? '' : `&after=${encodeURIComponent(after)}`;
      const answer = await call(session, 'GET', `/orders?since=${encodeURIComponent(since.toISOString())}${from}`);
      const page = orderPageSchema.parse(answer);
      // One that cannot be read keeps none of the others unheard.
      const read = page.orders.map((one) => ({ id: one.id, order: orderSchema.safeParse(one).data }));
      return {
        orders: read.flatMap((one) => (one.order ? linesOf(one.order) : [])),
        unread: read.flatMap((one) => (one.order ? [] : [one.id])),
        serverTime: new Date(page.serverTime),
        next: page.next ?? null,
      };
    },
    async cancelOrder(session, orderId) {
      return linesOf(
        orderSchema.parse(await call(session, 'POST', `/orders/${encodeURIComponent(orderId)}/cancel`, {})),
      );
    },
    ...(manner.takesOffers
      ? {
          async offers(session: Session) {
            const answer = await call(session, 'GET', '/offers');
            return z
              .object({ offers: z.array(offerSchema) })
              .parse(answer)
              .offers.map(offerOf);
          },
          answerOffer: async (session: Session, offerId: string, reply: OfferReply) =>
            offerOf(
              offerSchema.parse(await call(session, 'POST', `/offers/${encodeURIComponent(offerId)}/answer`, reply)),
            ),
        }
      : {}),
    async registerWebhook(session, url) {
      return z
        .object({ secret: z.string().startsWith('whsec_') })
        .parse(await call(session, 'POST', '/webhooks', { url }));
    },
  };
}
