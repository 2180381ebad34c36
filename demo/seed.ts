import { eq, sql } from 'drizzle-orm';
import { config } from '../src/config';
import { closeDatabase, database } from '../src/db/client';
import { rowsOf } from '../src/db/rows';
import { item, listing, sale } from '../src/db/schema';
import type { Actor } from '../src/services/access/actor';
import { findProducts } from '../src/services/accounts/find-products';
import { applyEdit } from '../src/services/changes/apply-edit';
import { addPhoto } from '../src/services/items/add-photo';
import { createItem } from '../src/services/items/create-item';
import { endListings } from '../src/services/listings/end-listings';
import { publish } from '../src/services/listings/publish';
import { loadAccounts } from '../src/services/records/load-accounts';
import { catalogue, type DemoItem } from './catalogue';
import { addCustomFields, addStrapToMeasure } from './custom-fields';
import { writeHistory } from './history';
import { manyItems } from './many';
import { control } from './marketplaces';
import { photograph } from './photos';
import { progressLine } from './progress';
import { connectAccounts, ownerActor, setUpPacking } from './shop';

const say = (text: string) => console.log(text);
const db = database();

/** Film grows old: the date on the box lies two years ahead. */
const attributesOf = ({ fields }: DemoItem): Record<string, string> => {
  const expires = new Date(Date.now() + 720 * 86_400_000).toISOString().slice(0, 10);
  return { ...fields.attributes, ...(fields.category?.startsWith('film/') ? { 'Expiry date': expires } : {}) };
};

/** Pictures of our own prints are large enough to be printed from. */
const sideOf = (demo: DemoItem): number => (demo.thing.kind === 'print' ? 2_600 : 900);

async function record(actor: Actor, demo: DemoItem): Promise<number> {
  const [known] = await db.select({ id: item.id }).from(item).where(eq(item.sku, demo.fields.sku));
  if (known) return known.id;
  const bought = new Date(Date.now() - demo.boughtDaysAgo * 86_400_000);
  const { id } = await createItem(actor, {
    fields: { ...demo.fields, attributes: attributesOf(demo), boughtOn: bought.toISOString().slice(0, 10) },
    quantity: demo.quantity,
  });
  const pictures = await Promise.all(demo.views.map((view) => photograph(demo.thing, view, sideOf(demo))));
  for (const [index, bytes] of pictures.entries())
    await addPhoto(actor, id, { bytes, name: `${demo.fields.sku}-${demo.views[index]}.jpg` });
  await db.update(item).set({ createdAt: bought }).where(eq(item.id, id));
  return id;
}

async function outboxEmpty(what: string): Promise<void> {
  for (let last = -1; ; ) {
    const [row] = rowsOf<{ count: number }>(
      await db.execute(sql`select count(*) as count from job where state in ('waiting', 'running')`),
    );
    if (!row || row.count === 0) return;
    if (row.count !== last) progressLine(`${what}: ${row.count} left   `);
    last = row.count;
    await new Promise((resolve) => setTimeout(resolve, 250));
  }
}

async function heard(count: number): Promise<void> {
  for (let tries = 0; tries < 200; tries++) {
    const [row] = rowsOf<{ count: number }>(
      await db.execute(
        sql`select count(*) as count from sale where account_id is not null and order_id not like 'past-%'`,
      ),
    );
    if ((row?.count ?? 0) >= count) return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

/** To the other eight as many as each bears: some take twenty a day, some only what their catalogue knows. */
async function goElsewhere(
  actor: Actor,
  listed: number[],
  accounts: Awaited<ReturnType<typeof loadAccounts>>,
  go: (some: number[], on: (number | undefined)[]) => Promise<void>,
): Promise<void> {
  const on = (market: string) => accounts.find((one) => one.row.market === market)?.id;
  const of = async (pattern: string) =>
    rowsOf<{ id: number }>(await db.execute(sql`select id from item where category like ${pattern} order by id`)).map(
      (row) => row.id,
    );
  const spread = (every: number, most: number) => listed.filter((_, index) => index % every === 0).slice(0, most);
  const stocked = [...(await of('film/%')), ...(await of('straps')), ...(await of('books/%'))].filter((id) =>
    listed.includes(id),
  );
  for (const market of ['crateway', 'lotbarn']) {
    const account = on(market);
    if (account) await findProducts(actor, { accountId: account, itemIds: listed });
  }
  const tries: [string, number[]][] = [
    ['shopfront', listed.filter((_, index) => index % 2 === 0)],
    ['selasar', spread(4, 26)],
    ['swishel', spread(5, 20)],
    ['lanesend', spread(7, 14)],
    ['glintfeed', spread(8, 14)],
    ['crateway', stocked.slice(0, 24)],
    ['lotbarn', stocked.slice(4, 24)],
    ['wallfolk', (await of('prints/%')).slice(0, 5)],
  ];
  for (const [market, some] of tries) await go(some, [on(market)]);
}

/** Live, changed, failing for a real reason, in draft, sold: the whole of a shop's day. */
async function aDay(actor: Actor, ids: number[]): Promise<void> {
  const accounts = await loadAccounts(db);
  const idOf = (name: string) => accounts.find((one) => one.name === name)?.id ?? 0;
  const [hallowick, oakhand, pippet, finds] = ['Hallowick', 'Oakhand', 'Pippet', 'Pippet finds'].map(idOf);
  const go = async (some: number[], on: (number | undefined)[]) => {
    if (some.length)
      await publish(actor, {
        selection: { kind: 'items', ids: some },
        accounts: on.filter((id): id is number => id !== undefined),
        without: [],
        as: 'live',
      });
  };
  const listed = ids.slice(0, -12);
  await go(
    listed.filter((_, index) => index % 4 !== 3),
    [hallowick, pippet],
  );
  await go(
    listed.filter((_, index) => index % 4 === 3),
    [hallowick, finds],
  );
  await go(
    listed.filter((_, index) => index % 3 !== 1),
    [oakhand],
  );
  await goElsewhere(actor, listed, accounts, go);
  await outboxEmpty('Sending listings to the marketplaces');
  say('');

  // Prices that were changed and not yet sent.
  await applyEdit(actor, {
    selection: { kind: 'items', ids: listed.slice(20, 31) },
    steps: [{ op: 'price-percent', basisPoints: -500, rounding: 'ninety', floor: null }],
    send: false,
    title: 'Autumn prices, cameras',
  });
  // Buyers buy: each piece disappears elsewhere.
  const live = rowsOf<{ remoteId: string; market: string; itemId: number }>(
    await db.execute(
      sql`select l.remote_id as remoteId, a.market, l.item_id as itemId from listing l join account a on a.id = l.account_id where l.remote = 'live' and a.market in ('hallowick', 'pippet', 'oakhand', 'shopfront') order by l.id`,
    ),
  );
  const bought = [...new Map(live.map((one) => [one.itemId, one])).values()]
    .filter((_, index) => index % 9 === 4)
    .slice(0, 9);
  for (const one of bought) await control(config.marketsUrl, one.market, 'buy', { listing: one.remoteId, quantity: 1 });
  await heard(bought.length);
  await outboxEmpty('Ending what was sold');
  // An open offer blocks the ending of two listings, and Oakhand has raised its lowest price.
  const blocked = rowsOf<{ remoteId: string; itemId: number }>(
    await db.execute(
      sql`select remote_id as remoteId, item_id as itemId from listing where account_id = ${pippet} and remote = 'live' order by id limit 2`,
    ),
  );
  for (const one of blocked)
    await control(config.marketsUrl, 'pippet', 'offer', { listing: one.remoteId, amount: 9_000 });
  if (blocked.length)
    await endListings(actor, {
      selection: { kind: 'items', ids: blocked.map((one) => one.itemId) },
      accounts: [pippet ?? 0],
    });
  await control(config.marketsUrl, 'oakhand', 'rule', { path: 'limits.priceMin', value: 1_300 });
  for (let tries = 0; tries < 100 && (await loadAccounts(db, [oakhand ?? 0]))[0]?.row.rulesVersion === 1; tries++)
    await new Promise((resolve) => setTimeout(resolve, 100));
  const films = rowsOf<{ id: number }>(await db.execute(sql`select id from item where category like 'film/%'`)).map(
    (row) => row.id,
  );
  await applyEdit(actor, {
    selection: { kind: 'items', ids: films },
    steps: [{ op: 'price-percent', basisPoints: -300, rounding: 'none', floor: null }],
    send: true,
    title: 'Film, three percent off',
  });
  await outboxEmpty('Sending prices');
  say('');
}

const wanted = Number(process.argv[process.argv.indexOf('--items') + 1]) || 0;
const actor = await ownerActor();
await connectAccounts(actor);
await setUpPacking();
const demo = catalogue();
say(`Recording ${demo.length} items of Grainhouse with their photos …`);
const ids: number[] = [];
const atOnce = 3;
for (let at = 0; at < demo.length; at += atOnce) {
  ids.push(...(await Promise.all(demo.slice(at, at + atOnce).map((one) => record(actor, one)))));
  progressLine(`${ids.length} of ${demo.length}`);
}
// One that lacks its photo, one whose photo is too small, one just begun: real work for somebody.
if (!(await db.select({ id: item.id }).from(item).where(eq(item.sku, 'GH-0001'))).length) {
  const small = await createItem(actor, {
    fields: {
      sku: 'GH-0001',
      title: 'Brask K-2 black camera body, untested, from a house clearance',
      brand: 'Brask',
      model: 'K-2',
      category: 'cameras/slr',
      condition: 'good',
      price: 4500,
      cost: 1200,
      weightGrams: 800,
      description: '<p>As found.</p>',
      attributes: { 'Film format': '35 mm' },
    },
    quantity: 1,
  });
  await addPhoto(actor, small.id, {
    bytes: await photograph({ kind: 'slr', brand: 'Brask', model: 'K-2', seed: 4 }, 'front', 420),
    name: 'small.jpg',
  });
  await createItem(actor, {
    fields: {
      sku: 'GH-0002',
      title: 'Velmar Lyra 35, to be tested',
      brand: 'Velmar',
      model: 'Lyra 35',
      category: 'cameras/rangefinder',
      condition: 'very-good',
    },
    quantity: 1,
  });
  const bare = await createItem(actor, { fields: { sku: 'GH-0003' }, quantity: 1 });
  await addPhoto(actor, bare.id, {
    bytes: await photograph({ kind: 'compact', brand: 'Kaskett', model: 'Pop 3', seed: 8, colour: 'blue' }, 'front'),
    name: 'found.jpg',
  });
  await addCustomFields();
  await addStrapToMeasure(actor, 'GH-0004');
}
say('');
if (!(await db.select({ id: sale.id }).from(sale).limit(1)).length) await writeHistory(db, demo);
const [begun] = await db.select({ id: listing.id }).from(listing).where(eq(listing.wanted, 'live')).limit(1);
if (!begun) await aDay(actor, ids);
if (wanted > demo.length) await manyItems(db, wanted, say);
await closeDatabase();
