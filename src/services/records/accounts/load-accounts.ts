import { and, eq, inArray } from 'drizzle-orm';
import {
  type AccountContext,
  type FoundProduct,
  readConditions,
  type Synonyms,
  type Template,
} from '../../../core/listing';
import { homeCurrency, type Rate } from '../../../core/measure';
import { samePricing } from '../../../core/price';
import { type CompiledRules, compileRules, type MarketRules, rulesFor, withCarrier } from '../../../core/rules';
import type { Executor } from '../../../db/client';
import type { AccountRow } from '../../../db/schema';
import { account, categoryMap, mapping, marketRules, template } from '../../../db/schema';
import { findBoxes } from './find-boxes';
import { latestRates } from './latest-rates';
import { readSettings } from './read-settings';
import { readTariffs } from './read-tariffs';
import { today } from './today';

// A version of rules never changes, so it is parsed once a process.
const ruleCache = new Map<string, MarketRules>();
const accountRuleCache = new Map<string, CompiledRules>();

async function readRules(db: Executor, market: string, version: number): Promise<MarketRules | null> {
  const cacheKey = `${market}/${version}`;
  const known = ruleCache.get(cacheKey);
  if (known) return known;
  const [row] = await db
    .select()
    .from(marketRules)
    .where(and(eq(marketRules.market, market), eq(marketRules.version, version)));
  if (!row) return null;
  ruleCache.set(cacheKey, row.doc);
  return row.doc;
}

/** Compiled rules of one account, the same object as long as neither rules nor exceptions change. */
async function compiledFor(
  db: Executor,
  row: AccountRow,
  carriers: { id: string; name: string }[],
): Promise<CompiledRules | null> {
  const rules = await readRules(db, row.market, row.rulesVersion);
  if (!rules) return null;
  const key = `${row.market}/${row.rulesVersion}/${JSON.stringify(row.exceptions)}/${JSON.stringify(carriers)}`;
  let compiled = accountRuleCache.get(key);
  if (!compiled) {
    compiled = compileRules(withCarrier(rulesFor(rules, row.exceptions), carriers));
    accountRuleCache.set(key, compiled);
  }
  return compiled;
}

export type LoadedAccount = AccountContext & { row: AccountRow };

type MappingRow = typeof mapping.$inferSelect;

function synonymsOf(rows: MappingRow[]): Synonyms {
  const synonyms: Synonyms = { names: {}, values: {} };
  for (const { kind, attribute, source, target } of rows) {
    if (kind === 'attribute') synonyms.names[attribute] = source;
    if (kind === 'value') synonyms.values[attribute] = { ...synonyms.values[attribute], [source]: target };
  }
  return synonyms;
}

const productsOf = (rows: MappingRow[]): Record<string, FoundProduct> =>
  Object.fromEntries(
    rows
      .filter((row) => row.kind === 'product')
      .map(({ source, target, detail }) => [
        source,
        { id: target, name: detail?.name ?? target, categoryId: detail?.categoryId ?? null },
      ]),
  );

const asTemplate = ({ id, name, conditions, fields, print, previous }: typeof template.$inferSelect): Template => ({
  id,
  name,
  conditions: readConditions(conditions),
  fields,
  print,
  previous,
});

const rateTo = (rates: Rate[], currency: string): Rate | null =>
  currency === homeCurrency ? null : (rates.find((one) => one.to === currency) ?? null);

/**
 * Accounts that were loaded before, as they are now: loaded again only where something that listings are computed with has
 * become another meanwhile. For who holds the items that are computed: what becomes another after that is waited for.
 */
export async function asOfNow(db: Executor, accounts: LoadedAccount[]): Promise<LoadedAccount[]> {
  if (accounts.length === 0) return accounts;
  const ids = accounts.map((one) => one.id);
  const now = await db
    .select({ id: account.id, version: account.contextVersion })
    .from(account)
    .where(inArray(account.id, ids));
  const isSame = accounts.every(({ id, row }) =>
    now.some((one) => one.id === id && one.version === row.contextVersion),
  );
  return isSame ? accounts : loadAccounts(db, ids);
}

/** Every account (or the named ones) with its rules, defaults and mappings, ready for computing. */
export async function loadAccounts(db: Executor, ids?: number[]): Promise<LoadedAccount[]> {
  if (ids && ids.length === 0) return [];
  const rows = await db
    .select()
    .from(account)
    .where(ids ? inArray(account.id, ids) : undefined)
    .orderBy(account.id);
  const markets = [...new Set(rows.map((row) => row.market))];
  if (markets.length === 0) return [];
  const [maps, mappings, templates, rates, settings, boxes, tariffs] = await Promise.all([
    db.select().from(categoryMap).where(inArray(categoryMap.market, markets)),
    db.select().from(mapping).where(inArray(mapping.market, markets)),
    db.select().from(template).orderBy(template.id),
    latestRates(db),
    readSettings(db),
    findBoxes(db),
    readTariffs(db),
  ]);
  const parcels = { boxes, tariffs };
  const carriers = tariffs.map(({ id, name }) => ({ id, name }));
  const loaded: LoadedAccount[] = [];
  for (const row of rows) {
    const compiled = await compiledFor(db, row, carriers);
    if (!compiled) continue;
    const own = maps.filter((map) => map.market === row.market).map((map) => [map.ownCategory, map.categoryId]);
    const known = mappings.filter((one) => one.market === row.market);
    loaded.push({
      id: row.id,
      name: row.name,
      compiled,
      defaults: row.defaults,
      categoryMap: Object.fromEntries(own),
      synonyms: synonymsOf(known),
      maps: row.maps ?? {},
      products: productsOf(known),
      templates: templates.filter((one) => one.accounts.length === 0 || one.accounts.includes(row.id)).map(asTemplate),
      footer: row.footer,
      houseTag: row.houseTag,
      pricing: row.pricing ?? samePricing,
      packaging: row.packaging ?? settings.packaging,
      packing: {
        perParcel: settings.packingCost,
        perKilo: settings.packingPerKilo,
        minutes: settings.packingMinutes,
        hourly: settings.hourlyRate,
      },
      parcels,
      stock: { reserve: row.stockReserve, cap: row.stockCap, servedBy: row.servedBy },
      rate: rateTo(rates, compiled.rules.currency),
      today: today(),
      row,
    });
  }
  return loaded;
}
