import { sql } from 'drizzle-orm';
import type { Json } from '../../../core/json';
import type { Content } from '../../../core/listing';
import { netFields, netInput, netOfContent } from '../../../core/listing/net';
import { homeCurrency } from '../../../core/measure';
import { isSamePrice, listingPrice } from '../../../core/price';
import { database } from '../../../db/client';
import { type LoadedAccount, loadAccounts } from '../accounts/load-accounts';
import { isOfSeveral } from '../items/is-artwork';
import { liveCounts } from './live-counts';

export type ItemTuple = [
  id: number,
  price: number | null,
  quantity: number,
  cost: number | null,
  weightGrams: number | null,
  category: string,
  /** 1 when the item has variations. */
  varied: number,
  lengthMm: number | null,
  widthMm: number | null,
  heightMm: number | null,
];

/** Besides the price what is written for the account as JSON; null where that is nothing but price and units. */
export type ListingTuple = [itemId: number, accountId: number, overridePrice: number | null, own: string | null];

export type Own = Readonly<Record<string, Json>>;

/** An account with what the net of everything that is sold there hangs on. */
export type AccountNet = {
  account: LoadedAccount;
  liveCount: number;
  /** The account's own fields where neither item nor template says otherwise, by field id. */
  values: Content;
  /** Its prices are the items' own. */
  samePrice: boolean;
  /**
   * Some template says something that a net hangs on: which of them fits an item is only known when its listing is
   * computed as a whole.
   */
  isTemplated: boolean;
};

function netAccount(account: LoadedAccount, liveCount: number): AccountNet {
  const { rules } = account.compiled;
  const hangsOn = new Set(netFields(rules));
  return {
    account,
    liveCount,
    isTemplated: account.templates.some((one) => [...hangsOn].some((field) => (one.fields[field] ?? '').trim() !== '')),
    values: Object.fromEntries(
      rules.extras.flatMap((extra): [string, Json][] => {
        const field = `extra.${extra.id}`;
        const value = account.defaults[extra.id] ?? extra.fallback;
        return hangsOn.has(field) && value !== null ? [[field, value]] : [];
      }),
    ),
    samePrice: isSamePrice(account.pricing, homeCurrency, rules.currency, rules.price?.holds === true),
  };
}

type Row = Readonly<[...ItemTuple, ...unknown[]]>;

const thingOf = (row: Row) => ({
  cost: row[3],
  weightGrams: row[4],
  lengthMm: row[7],
  widthMm: row[8],
  heightMm: row[9],
});

/** What listings hold where nothing is written for one alone: one for all of a category, since nobody keeps it. */
const shared = new WeakMap<AccountNet, Map<string, Content>>();

/** What the listing holds as far as its net hangs on it, without computing the rest of it. */
function contentOf(there: AccountNet, row: Row, own: Own | null): Content {
  const { account, values } = there;
  const category = account.categoryMap[row[5]] ?? null;
  if (own) return { ...values, category, ...own };
  const known = shared.get(there) ?? new Map<string, Content>();
  shared.set(there, known);
  const content = known.get(row[5]) ?? { ...values, category };
  known.set(row[5], content);
  return content;
}

/** The price that an account makes of the item's. */
export function priceThere(there: AccountNet, row: Row, price: number | null, own: Own | null = null): number | null {
  const { account, samePrice } = there;
  if (price === null || samePrice) return price;
  const { rules } = account.compiled;
  const made = listingPrice(price, {
    pricing: account.pricing,
    rate: account.rate,
    needsRate: rules.currency !== homeCurrency,
    holds: rules.price?.holds === true,
    net: netInput(account, contentOf(there, row, own), thingOf(row), 0),
  });
  return made?.price ?? null;
}

/** Net and fees of a price there; null without one. */
export function netsAt(
  there: AccountNet,
  row: Row,
  price: number | null,
  own: Own | null = null,
): { net: number; fees: number } | null {
  if (price === null) return null;
  const content = contentOf(there, row, own);
  content.price = price;
  const found = netOfContent(there.account, content, thingOf(row), there.liveCount);
  return found && { net: found.net, fees: found.fees.total };
}

/** Every account, ready to compute nets. Live listings are counted only where a fee hangs on their number. */
export async function accountNets(): Promise<Map<number, AccountNet>> {
  const db = database();
  const accounts = await loadAccounts(db);
  const live = await liveCounts(db, accounts);
  return new Map(accounts.map((account) => [account.id, netAccount(account, live.get(account.id) ?? 0)]));
}

export const itemTuple = sql`i.id, i.price, i.quantity, i.cost, i.weight_grams, i.category, ${isOfSeveral}, i.length_mm, i.width_mm, i.height_mm`;

/** What is written for an account besides price and units: as JSON text, null where there is nothing of it. */
export const ownColumn = sql`if(json_length(l.overrides) > json_exists(l.overrides, '$.price') + json_exists(l.overrides, '$.quantity'), concat(l.overrides, ''), null)`;
