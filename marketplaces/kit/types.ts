export type Json = string | number | boolean | null | Json[] | { [key: string]: Json };
export type Data = Record<string, Json>;

export type Seller = {
  id: string;
  market: string;
  name: string;
  password: string;
  apiKey: string;
  /** What this account is allowed beyond the rules. */
  exceptions: Data;
  lockedUntil: number;
  warned: boolean;
};

export type Listing = {
  id: string;
  market: string;
  seller: string;
  state: 'live' | 'ended' | 'sold' | 'review' | 'refused' | 'paused' | 'off';
  /** The fields as this marketplace names them. */
  data: Data;
  createdAt: number;
  updatedAt: number;
  endedAt: number | null;
  renewsAt: number | null;
  /** When it ends by itself. */
  endsAt: number | null;
  /** When its review is over, and why it was refused. */
  reviewAt: number | null;
  reasons: Problem[];
  /** Offers that are open. */
  offers: { id?: string; amount: number; buyer: string }[];
  /** Bids of a timed sale, in their order. */
  bids?: { amount: number; buyer: string; at: number }[];
  /** For how many months its storage was billed. */
  months?: number;
  /** How often its price has dropped by itself, and what it was before. */
  drops?: { count: number; from: number };
};

export type OrderLine = Pick<
  Order,
  'listing' | 'reference' | 'title' | 'quantity' | 'unitPrice' | 'total' | 'fee' | 'variant'
>;

export type Order = {
  id: string;
  market: string;
  seller: string;
  listing: string;
  reference: string;
  title: string;
  quantity: number;
  unitPrice: number;
  total: number;
  /** What the buyer paid for postage besides. */
  postage: number;
  /** What was taken off for several things in one order. */
  discount?: number;
  /** What the marketplace kept, of price and postage; for advertising where it was sold through that. */
  fee: number;
  /** The marketplace's label, where the seller pays it. */
  label?: number;
  /** Fetched by the buyer, not sent. */
  collected?: boolean;
  /** What the buyer wants on it. */
  personal?: string;
  currency: string;
  buyerTown: string;
  /** Which combination was bought, where there are several. */
  variant: { values: string[]; number: string } | null;
  /** Everything that was bought, where it was more than one thing; the first is what the order itself names. */
  lines?: OrderLine[];
  createdAt: number;
  updatedAt?: number;
  /** `paid` or `cancelled`, or what this marketplace calls what lies between. */
  state: string;
};

/** What a check may look up besides the listing itself. */
export type Look = {
  now: number;
  photo(id: string): { width: number; height: number } | undefined;
  /** A film that was uploaded. */
  clip(id: string): { seconds: number } | undefined;
  /** The listing that carries or carried a seller's number. */
  taken(reference: string): string | null;
  /** The listing that is being changed; null for a new one. */
  own: string | null;
};

export type Problem = { pointer: string; detail: string };

/** What is common to read from any marketplace's own fields. */
export type Summary = {
  title: string;
  text: string;
  price: number;
  quantity: number;
  reference: string;
  photos: string[];
};

export type SellerEnv = { Variables: { seller: Seller } };
/** A marketplace: everything that makes it differ from the others. */
export type Market = {
  name: string;
  title: string;
  line: string;
  auth: 'oauth' | 'key';
  honoursIdempotencyKey: boolean;
  /** RFC 9457 problem details, or one bare sentence. */
  errors: 'problem' | 'sentence';
  hasWebhooks: boolean;
  /** Names of the collections in this marketplace's addresses. */
  paths: { listings: string; photos: string };
  /** The rules as first published; the control page changes a stored copy. */
  firstRules: Rules;
  validate(data: Data, rules: Rules, seller: Seller, look: Look): Problem[];
  summary(data: Data): Summary;
  withQuantity(data: Data, quantity: number): Data;
  /** Why the seller may not end it now, or null. */
  whyNotEnd(listing: Listing): string | null;
  /** What a change may not touch, or null. */
  whyNotChange?(listing: Listing, merged: Data): Problem | null;
  feeOf(rules: Rules, total: number, data: Data, pieces?: number): number;
  /** What a month of lying in the marketplace's warehouse costs. */
  storageOf?(rules: Rules, data: Data): number;
  /** What the buyer pays for postage on top of the price. */
  postageOf?(rules: Rules, data: Data): number;
  /** What a piece costs now, when so many are bought: sale prices, tiers. Left out, or null: what is asked. */
  priceAt?(data: Data, pieces: number, now: number): number | null;
  /** Fields as they are after a change; where left out the change's own stand. */
  merge?(data: Data, part: Data): Data;
  /** Whether buyers may offer less, and under what they are declined unheard. Left out: they may. */
  offersOf?(data: Data): { taken: boolean; declineBelow: number | null };
  /** The terms of a timed sale; null for a fixed price. */
  timedOf?(data: Data): { reserve: number; days: number } | null;
  /** A price that falls by itself; the fields with the new one. */
  dropTo?(data: Data, cents: number): Data | null;
  /** What is asked of whoever buys it; empty for nothing. */
  asksFor?(data: Data): string;
  /** Whether a buyer may fetch it. */
  mayCollect?(data: Data): boolean;
  /** The marketplace's label that the seller pays; 0 where the buyer does. */
  labelOf?(rules: Rules, data: Data): number;
  /** Reasons for which its review refuses a listing. */
  review?(data: Data): Problem[];
  /** The fields as they are charged for when one combination is bought. */
  forVariant?(data: Data, values: readonly string[]): Data;
  /** Pictures with transparency are taken, as PNG. */
  takesPng?: boolean;
  /** A seller switches listings off and on again; ending one deletes it for good. */
  switchesOff?: boolean;
  /** Where short films are uploaded, as MP4; a listing names one in `clip`. */
  clips?: string;
  /** Whether listings are made by requests of their own, or only in feeds or batches. */
  writes?: 'direct' | 'elsewhere';
  /** Lines for its interface description. */
  paper?: Record<string, string>;
  /** Shops that exist from the start, with what each is allowed beyond the rules. */
  /** The field that holds axes and combinations, where it takes them. */
  variantsField?: string;
  firstSellers: Record<string, Data>;
  look: { paper: string; ink: string; accent: string; font: string; wide: boolean };
};

export type Attribute = { id: string; name: string; required: boolean; values: string[] | null; max: number };
export type Category = {
  id: string;
  name: string;
  path: string[];
  leaf: boolean;
  attributes: Attribute[];
  demands?: string[];
};

/** The rules as published under /rules. */
/** What is printed on, of a product: millimetres, pixels, what is kept free at the edge, and what is cut off. */
export type PrintArea = {
  widthMm: number;
  heightMm: number;
  widthPx: number;
  heightPx: number;
  safeMm: number;
  bleedMm: number;
  profile?: string;
};

export type Rules = {
  version: number;
  currency: string;
  limits: Record<string, number>;
  required: string[];
  lists: Record<string, { id: string; label: string; colour?: string; area?: PrintArea }[]>;
  conditions: { id: string; label: string }[];
  noteForbiddenOn: string[];
  categories: Category[];
  fees: Record<string, Json>;
  pacing: { perMinute: number; newPerDay: number };
  renewDays: number | null;
  /** A listing ends by itself after so many days. */
  endsAfterDays?: number | null;
  /** Every new listing is looked at first; how long that takes. */
  review?: { ms: number } | null;
  /** How often buyers looked for a word lately. */
  searches?: Record<string, number>;
};
