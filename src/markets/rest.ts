import { z } from 'zod';
import { NettingError } from '../core/errors';
import type { Content } from '../core/listing';
import { shareOut } from '../core/price';
import type { MarketRules } from '../core/rules';
import { offerStates } from '../core/sync';
import type { Connector, OfferReply, RemoteListing, RemoteOffer, RemoteOrder, Sending } from './connector';
import type { WireFields } from './content';
import type { Session } from './session';

type Wire = Record<string, unknown>;

/** What differs between marketplaces that are all spoken to by listings, pictures and orders over JSON. */
export type RestManner = Pick<
  Connector,
  'market' | 'name' | 'about' | 'access' | 'honoursIdempotencyKey' | 'hasWebhooks'
> & { linesAtOnce?: number; takesOffers?: boolean; switchesOff?: boolean; hides?: readonly string[] } & {
  paths: { listings: string; photos: string; clips?: string };
  rules(published: unknown): MarketRules;
  /** Our content as their fields. */
  toWire(content: Content, photoIds: string[], before?: Content): Wire;
  /** Which of their top-level fields carry these of ours. */
  wireFields: WireFields;
  fromWire(wire: Wire): Content;
  skuOf(wire: Wire): string;
  /** What bare sentences are about: the first that fits names our field. */
  sentences?: [RegExp, string | ((hit: RegExpExecArray) => string)][];
};

const listingSchema = z.looseObject({
  id: z.string(),
  state: z.enum(['live', 'ended', 'sold', 'review', 'refused', 'paused', 'off']),
  reasons: z.array(z.object({ detail: z.string().max(1_000), pointer: z.string().max(200).optional() })).optional(),
  link: z.url({ protocol: /^https?$/ }),
  called: z.string().max(1_000).optional(),
  photoLinks: z
    .array(z.object({ id: z.string().max(80), link: z.url({ protocol: /^https?$/ }).max(500) }))
    .max(200)
    .optional(),
  createdAt: z.iso.datetime().nullish(),
  renewsAt: z.iso.datetime().nullish(),
  offersOpen: z.number().int().min(0).max(30_000).optional(),
  endsAt: z.iso.datetime().nullish(),
  bids: z.number().int().min(0).max(30_000).optional(),
  highestBid: z.number().int().nullish(),
});
const pageSchema = z.object({ listings: z.array(listingSchema), next: z.string().nullable() });
const lineSchema = z.object({
  listing: z.string().max(60),
  reference: z.string().max(100),
  title: z.string().max(1_000),
  quantity: z.number().int().positive(),
  unitPrice: z.number().int(),
  total: z.number().int(),
  fee: z.number().int(),
  variant: z.object({ values: z.array(z.string().max(100)).max(5), number: z.string().max(60) }).nullish(),
});
const orderSchema = lineSchema.extend({
  id: z.string().max(60),
  currency: z.string().length(3),
  /** Of the whole order: what the buyer paid for postage, and what was taken off. */
  postage: z.number().int().min(0).optional(),
  discount: z.number().int().min(0).optional(),
  label: z.number().int().min(0).optional(),
  collected: z.boolean().optional(),
  personal: z.string().max(1_000).optional(),
  buyerTown: z.string().max(200),
  createdAt: z.number(),
  updatedAt: z.number().optional(),
  /** They have more states than we know: unpaid, partly refunded. */
  state: z.string().max(200).default('paid'),
  /** Everything that was bought, where it is more than the order itself names. */
  lines: z.array(lineSchema).min(1).max(500).optional(),
});

const offerSchema = z.object({
  id: z.string().max(60),
  listing: z.string().max(60),
  amount: z.number().int().min(0),
  buyer: z.string().max(200),
  words: z.string().max(2_000),
  createdAt: z.iso.datetime(),
  deadline: z.iso.datetime(),
  state: z.enum(offerStates),
  counter: z.number().int().nullable(),
});

const offerOf = (wire: z.infer<typeof offerSchema>): RemoteOffer => ({
  offerId: wire.id,
  remoteListingId: wire.listing,
  amount: wire.amount,
  buyer: wire.buyer.slice(0, 120),
  words: wire.words.slice(0, 1_000),
  madeAt: new Date(wire.createdAt),
  deadline: new Date(wire.deadline),
  state: wire.state,
  counter: wire.counter,
});

const orderPageSchema = z.object({
  orders: z.array(z.looseObject({ id: z.string().max(60) })),
  serverTime: z.iso.datetime(),
  next: z.string().max(60).nullish(),
});

function linesOf(wire: z.infer<typeof orderSchema>): RemoteOrder[] {
  const lines = wire.lines ?? [wire];
  const weights = lines.map((one) => one.total);
  const postage = shareOut(wire.postage ?? 0, weights);
  const discount = shareOut(wire.discount ?? 0, weights);
  const parcel = shareOut(1_000_000, weights);
  const label = shareOut(wire.label ?? 0, weights);
  return lines.map((one, line) => ({
    orderId: wire.id,
    line,
    remoteListingId: one.listing,
    sku: one.reference.slice(0, 40),
    title: one.title.slice(0, 300),
    quantity: one.quantity,
    unitPrice: one.unitPrice,
    total: one.total,
    fee: one.fee,
    buyerPostage: postage[line] ?? 0,
    discount: discount[line] ?? 0,
    parcelShare: (parcel[line] ?? 0) / 1_000_000,
    label: label[line] ?? 0,
    collected: wire.collected ?? false,
    personal: wire.personal?.slice(0, 400) ?? null,
    currency: wire.currency,
    buyerTown: wire.buyerTown.slice(0, 80),
    variation: one.variant ?? null,
    soldAt: new Date(wire.createdAt),
    changedAt: new Date(wire.updatedAt ?? wire.createdAt),
    cancelled: wire.state === 'cancelled',
    rawState: wire.state === 'paid' || wire.state === 'cancelled' ? null : wire.state.slice(0, 40),
  }));
}

function aboutField(sentence: string, table: NonNullable<RestManner['sentences']>): string | undefined {
  for (const [pattern, field] of table) {
    const hit = pattern.exec(sentence);
    if (hit) return typeof field === 'string' ? field : field(hit);
  }
  return undefined;
}

/** Where the ids of properties are their names in small letters: a sentence that begins with one is about it. */
export const aboutAttribute: [RegExp, (hit: RegExpExecArray) => string] = [
  /^(?!The )(.+?) is (?:missing|too long|not one that we know)/,
  (hit) => `attr.${(hit[1] ?? '').toLowerCase().replace(/[^a-z0-9]+/g, '_')}`,
];

/** A refusal with our own field in it, from the pointer of the problem or from what the sentence is about. */
export function withOurField(error: unknown, manner: Pick<RestManner, 'wireFields' | 'sentences'>): unknown {
  if (!(error instanceof NettingError) || error.code !== 'market-refused') return error;
  const details = (error.facts.details ?? []).map((one) => ({
    ...one,
    field: manner.wireFields.back(one.field) ?? one.field,
  }));
  const spoken = aboutField(error.message.replace(/^\w+: /, ''), manner.sentences ?? []);
  return new NettingError(error.code, error.message, { ...error.facts, details, field: details[0]?.field ?? spoken });
}

/** The parts of a manner that read listings and orders, for connectors that send in another way. */
export function listingReader(
  manner: Pick<RestManner, 'skuOf' | 'fromWire' | 'wireFields'>,
): (wire: unknown) => RemoteListing {
  return (wire) => {
    const parsed = listingSchema.parse(wire);
    return {
      remoteId: parsed.id,
      url: parsed.link,
      state: parsed.state === 'paused' ? 'ended' : parsed.state,
      reasons: parsed.reasons?.map(({ detail, pointer }) => ({
        text: detail,
        field: pointer === undefined ? undefined : (manner.wireFields.back(pointer) ?? undefined),
      })),
      called: parsed.called ?? '',
      photos: (parsed.photoLinks ?? []).map(({ id, link }) => ({ id, url: link })),
      madeAt: parsed.createdAt ? new Date(parsed.createdAt) : null,
      renewsAt: parsed.renewsAt ? new Date(parsed.renewsAt) : null,
      offersOpen: parsed.offersOpen ?? 0,
      endsAt: parsed.endsAt ? new Date(parsed.endsAt) : null,
      bids: parsed.bids ?? 0,
      highestBid: parsed.highestBid ?? null,
      sku: manner.skuOf(parsed),
      content: manner.fromWire(parsed),
    };
  };
}

const accountSchema = z.object({
  name: z.string().min(1).max(120),
  exceptions: z.record(z.string(), z.unknown()),
  lockedUntil: z.number().nullish(),
  warned: z.boolean().optional(),
});

const ownListsSchema = z.record(z.string(), z.array(z.object({ id: z.string(), label: z.string() })));

/**
 * The parts of the rules that come out otherwise for one account: whichever limits it has of its own, and the sections,
 * collections, places and profiles that are named in its shop.
 */
function partsWith(
  manner: Pick<RestManner, 'rules'>,
  published: unknown,
  own: { limits: Record<string, number>; lists: z.infer<typeof ownListsSchema> },
): Partial<MarketRules> | undefined {
  const rules = z
    .looseObject({ limits: z.record(z.string(), z.number()), lists: z.record(z.string(), z.unknown()) })
    .parse(published);
  const usual = manner.rules(published);
  const mine = manner.rules({
    ...rules,
    limits: { ...rules.limits, ...own.limits },
    lists: { ...rules.lists, ...own.lists },
  });
  const parts = Object.entries(mine).filter(
    ([part, value]) => JSON.stringify(value) !== JSON.stringify(usual[part as keyof MarketRules]), // keys of the same
  );
  return parts.length ? Object.fromEntries(parts) : undefined;
}

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
