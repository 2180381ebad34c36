import { mkdirSync, writeFileSync } from 'node:fs';
import { sql } from 'drizzle-orm';
import { NettingError } from '../../../src/core/errors';
import type { Item } from '../../../src/core/item';
import { computeListing } from '../../../src/core/listing';
import { compileRules, type MarketRules } from '../../../src/core/rules';
import { closeDatabase, database } from '../../../src/db/client';
import { rowsOf } from '../../../src/db/rows';
import { type Connector, connectors, type Session } from '../../../src/markets';
import { photoFor } from '../../../src/photos/shaped';
import { type LoadedAccount, loadAccounts } from '../../../src/services/records/accounts/load-accounts';
import { loadItems } from '../../../src/services/records/items/load-items';
import { openSeller } from '../../support/sellers';
import { type Varied, varied } from '../../support/varied';

const wanted = 200;
const atOnce = 24;

let items: Item[] = [];
let accounts: LoadedAccount[] = [];
const table: Record<string, unknown>[] = [];

beforeAll(async () => {
  const db = database();
  const ids = rowsOf<{ id: number }>(
    await db.execute(sql`select id from item where sku regexp '^[A-Z][0-9]?-[0-9]+$' order by id limit 117`),
  ).map((row) => row.id);
  items = (await loadItems(db, ids)).map((item) => ({ ...item, quantity: Math.max(1, item.quantity) }));
  accounts = await loadAccounts(db);
});
afterAll(async () => {
  mkdirSync('tests/.out', { recursive: true });
  writeFileSync('tests/.out/agreement.json', JSON.stringify(table, null, 2));
  await closeDatabase();
});

const pictures = new Map<string, Promise<Buffer>>();
/** Shaped once, however many marketplaces want the same shape. */
function picture(reference: string, rules: MarketRules): Promise<Buffer> {
  const key = `${rules.photos.kind ?? 'own'}/${reference}`;
  const held = pictures.get(key) ?? photoFor(reference, rules.photos);
  pictures.set(key, held);
  return held;
}

/** Uploads a picture once per marketplace, in the shape that the listing says it needs. */
function uploader(connector: Connector, session: Session, rules: MarketRules) {
  const known = new Map<string, Promise<string>>();
  return (reference: string): Promise<string> => {
    const held = known.get(reference) ?? picture(reference, rules).then((jpeg) => connector.uploadPhoto(session, jpeg));
    known.set(reference, held);
    return held;
  };
}

type Outcome = { what: string; ready: boolean; accepted: boolean; ours: string[]; theirs: string[]; said: string };

async function inPortions<T, R>(all: T[], work: (one: T) => Promise<R>): Promise<R[]> {
  const results: R[] = [];
  for (let at = 0; at < all.length; at += atOnce)
    results.push(...(await Promise.all(all.slice(at, at + atOnce).map(work))));
  return results;
}

/** Refused for the same reason: what they name is among what we named. */
const agrees = (one: Outcome): boolean =>
  one.ready
    ? one.accepted
    : !one.accepted && one.theirs.length > 0 && one.theirs.every((field) => one.ours.includes(field));

test('there are two hundred varied items to tell', () => expect(items.length).toBeGreaterThan(100));

test.each(connectors.map((connector) => [connector.name, connector] as const))(
  '%s accepts what the checks call ready, and refuses the rest for the same reason',
  async (name, connector) => {
    const session = await openSeller(connector.market, `agree-${Date.now().toString(36)}`);
    const rules = await connector.readRules(session);
    const shop = accounts.find((one) => one.row.market === connector.market);
    if (!shop) throw new Error(`no account on ${name}`);
    // Holes in the shop's own templates are its own affair: what is compared is the marketplace's rules.
    const account = { ...shop, compiled: compileRules(rules), templates: [] };
    const upload = uploader(connector, session, rules);

    const tell = async ({ what, item, overrides }: Varied, index: number): Promise<Outcome> => {
      const computed = computeListing({ item, overrides, account });
      const photos = Array.isArray(computed.content.photos) ? computed.content.photos.map(String) : [];
      const photoIds = await Promise.all(photos.map(upload));
      const ours = computed.issues.filter((issue) => issue.blocks).map((issue) => issue.field);
      const told = { what: `${what} (${item.sku})`, ready: computed.ready, ours };
      try {
        await connector.create(session, {
          content: computed.content,
          photoIds,
          idempotencyKey: `agree-${name}-${index}-${item.sku}`,
        });
        return { ...told, accepted: true, theirs: [], said: '' };
      } catch (error) {
        if (!(error instanceof NettingError) || error.code !== 'market-refused') throw error;
        const theirs = [
          ...new Set([
            ...(error.facts.details ?? []).map((one) => one.field),
            ...(error.facts.field ? [error.facts.field] : []),
          ]),
        ];
        return { ...told, accepted: false, theirs, said: error.message };
      }
    };
    const told = varied(items, rules, wanted).map((one, index) => ({ one, index }));
    const outcomes = await inPortions(told, ({ one, index }) => tell(one, index));
    const wrong = outcomes.filter((one) => !agrees(one));
    table.push({
      market: name,
      told: outcomes.length,
      ready: outcomes.filter((one) => one.ready).length,
      accepted: outcomes.filter((one) => one.accepted).length,
      refused: outcomes.filter((one) => !one.accepted).length,
      agreement: `${((100 * (outcomes.length - wrong.length)) / outcomes.length).toFixed(1)} %`,
    });
    expect(wrong).toEqual([]);
    // Both kinds must be there, else nothing was compared.
    expect(outcomes.some((one) => one.ready)).toBe(true);
    expect(outcomes.some((one) => !one.ready)).toBe(true);
  },
  120_000,
);
