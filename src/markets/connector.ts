import type { ContentLine } from '../core/kit';
import type { CatalogueEntry, Content } from '../core/listing';
import type { Comparable } from '../core/price';
import type { AccountExceptions, MarketRules } from '../core/rules';
import type { OfferState } from '../core/sync';
import type { Inbound } from './inbound';
import type { Session } from './session';

/** A listing as the marketplace shows it to its owner, brought into our fields. */
export type RemoteListing = {
  remoteId: string;
  url: string;
  state: 'live' | 'off' | 'ended' | 'sold' | 'review' | 'refused';
  /** Why it was refused in review. */
  reasons?: { text: string; field?: string }[];
  sku: string;
  content: Content;
  /** What buyers see as its name, also where it has no title of its own. */
  called: string;
  /** Its photos in their order: what each is called there, and where it can be fetched. */
  photos: { id: string; url: string }[];
  /** When it was made there, where they say so. */
  madeAt: Date | null;
  /** When they renew it by themselves. */
  renewsAt: Date | null;
  /** Offers that are open. */
  offersOpen: number;
  /** When it ends by itself; bids of a timed sale, and the highest of them. */
  endsAt: Date | null;
  bids: number;
  highestBid: number | null;
};

/** What a buyer would pay, until when, and what has become of it. */
export type RemoteOffer = {
  offerId: string;
  remoteListingId: string;
  amount: number;
  buyer: string;
  words: string;
  madeAt: Date;
  deadline: Date;
  state: OfferState;
  /** What we would take instead. */
  counter: number | null;
};

export type OfferReply = { answer: 'accept' | 'decline' } | { answer: 'counter'; amount: number };

/** One line of an order: one thing that was bought, once or several times. */
export type RemoteOrder = {
  orderId: string;
  remoteListingId: string;
  sku: string;
  title: string;
  quantity: number;
  unitPrice: number;
  total: number;
  fee: number;
  /** This line's part of what the buyer paid for postage besides, and of what was taken off. */
  buyerPostage: number;
  discount: number;
  /** This line's part of the parcel, from 0 to 1. */
  parcelShare: number;
  /** The marketplace's label, where we pay it: this line's part. */
  label: number;
  /** The buyer fetches it; what the buyer wants on it. */
  collected: boolean;
  personal: string | null;
  currency: string;
  buyerTown: string;
  /** Which combination was bought, where there are several. */
  variation: { values: string[]; number: string } | null;
  soldAt: Date;
  /** When it last changed: was placed, or called off. */
  changedAt: Date;
  cancelled: boolean;
  /** Which line of its order it is, from 0. */
  line: number;
  /** What they call its state, where it is neither paid nor called off. */
  rawState: string | null;
};

export type Sending = {
  content: Content;
  photoIds: string[];
  /** What they call the clip, where the content has one. */
  clipId?: string;
  idempotencyKey: string;
  /** Of a change: what was sent before. */
  before?: Content;
};

/** An entry of a catalogue, as far as it is needed to name a thing. */
export type CatalogueThing = { id: string; name: string; grams: number | null };

export type ProductQuery = { gtin: string } | { isbn: string } | { name: string };

/** What somebody offers of a product now; minor units of the marketplace's currency. */
export type PresentOffer = {
  price: number;
  quantity: number;
  condition: string;
  /** Colour or finish, where they tell it. */
  finish?: string;
  /** Who sends it, and what the buyer pays for that besides, where they tell it. */
  ships?: string;
  delivery?: number;
};

/** What Netting needs of a marketplace. One folder per marketplace makes one of these. */
export type OrderPage = {
  orders: RemoteOrder[];
  /** Numbers of orders that are not written as the marketplace describes them. */
  unread: string[];
  serverTime: Date;
  /** What the next page comes after; null when there is none. */
  next: string | null;
};

export type RemoteAccount = {
  remoteName: string;
  exceptions: AccountExceptions;
  /** Until when nothing is taken from it; null where it may sell. */
  lockedUntil: Date | null;
  /** It was warned of too many new listings. */
  warned: boolean;
};

export type Connector = {
  market: string;
  name: string;
  /** One sentence: what kind of place it is. */
  about: string;
  access: 'oauth' | 'key';
  honoursIdempotencyKey: boolean;
  hasWebhooks: boolean;
  /** Changes travel as lines, so many at a time; null where each is a request of its own. */
  linesAtOnce: number | null;
  readRules(session: Session): Promise<MarketRules>;
  /** The account's name there, what it is allowed beyond or below the rules, and how it stands. */
  readAccount(session: Session): Promise<RemoteAccount>;
  create(session: Session, sending: Sending): Promise<RemoteListing>;
  /** Sends only the named fields. */
  change(session: Session, remoteId: string, sending: Sending, fields: string[]): Promise<RemoteListing>;
  /** Fields of ours that they take and never show back; photos are shown by their own names. */
  hides: readonly string[];
  /** Which of these fields of ours are shown in the same places as the sent ones, so that sending those changes them, too. */
  shownWith(sent: string[], among: string[]): string[];
  end(session: Session, remoteId: string, idempotencyKey: string): Promise<RemoteListing>;
  /** Ends it for good, where `end` only switches it off. */
  remove?(session: Session, remoteId: string, idempotencyKey: string): Promise<RemoteListing>;
  /** Switches on what was switched off, with everything that it says by now. */
  switchOn?(session: Session, remoteId: string, sending: Sending): Promise<RemoteListing>;
  read(session: Session, remoteId: string): Promise<RemoteListing>;
  /** Live listings that carry our stock number: the way to find out whether an earlier try got through. */
  findLive(session: Session, sku: string): Promise<RemoteListing[]>;
  /** One's own listings, whatever their state, a page at a time. */
  listPage(session: Session, after: string | null): Promise<{ listings: RemoteListing[]; next: string | null }>;
  uploadPhoto(session: Session, jpeg: Buffer): Promise<string>;
  /** Takes a short film as MP4, where it shows any. */
  uploadClip?(session: Session, mp4: Buffer): Promise<string>;
  /** An order, line by line. */
  readOrder(session: Session, orderId: string): Promise<RemoteOrder[]>;
  /** Orders that changed since a time, oldest first, a page at a time. */
  ordersSince(session: Session, since: Date, after: string | null): Promise<OrderPage>;
  cancelOrder(session: Session, orderId: string): Promise<RemoteOrder[]>;
  registerWebhook(session: Session, url: string): Promise<{ secret: string }>;
  /** Offers of buyers, the newest last, where it has any. */
  offers?(session: Session): Promise<RemoteOffer[]>;
  answerOffer?(session: Session, offerId: string, reply: OfferReply): Promise<RemoteOffer>;
  /** Products of its catalogue, where it has one. */
  findProducts?(session: Session, by: ProductQuery): Promise<CatalogueEntry[]>;
  /** Single past sales of a product and what is offered now, where it tells them. */
  pastSales?(session: Session, productId: string): Promise<Comparable[]>;
  presentOffers?(session: Session, productId: string): Promise<PresentOffer[]>;
  /** What a set of its catalogue is made of, where it publishes that; nothing of what is no set. */
  contents?(session: Session, productId: string): Promise<ContentLine[]>;
  /** Numbers that entries of its catalogue had once, and those that they have now. */
  formerNumbers?(session: Session): Promise<Map<string, string>>;
  /** Entries by their numbers; those that there are none of are left out. */
  entries?(session: Session, ids: readonly string[]): Promise<CatalogueThing[]>;
  /** How stock is sent to its warehouses, where it has any. */
  inbound?: Inbound;
};
