import { inArray, sql } from 'drizzle-orm';
import pino from 'pino';
import { catalogue } from '../../demo/catalogue';
import { manyItems } from '../../demo/many';
import { photograph } from '../../demo/photos';
import { connectAccounts, ownerActor } from '../../demo/shop';
import { onItem } from '../../src/core/edit';
import { closeDatabase, database, pool } from '../../src/db/client';
import { valuesTable } from '../../src/db/literal';
import { rowsOf } from '../../src/db/rows';
import { listing } from '../../src/db/schema';
import type { Actor } from '../../src/services/access/actor';
import { applyEdit } from '../../src/services/changes/many/apply-edit';
import { countEdit, previewCounts } from '../../src/services/changes/preview/preview-counts';
import { previewRows } from '../../src/services/changes/preview/preview-rows';
import { addPhoto } from '../../src/services/items/add-photo';
import { createItem } from '../../src/services/items/create-item';
import { loadAccounts } from '../../src/services/records/accounts/load-accounts';
import { type FindItems, findItems } from '../../src/services/records/items/find-items';
import { loadItems } from '../../src/services/records/items/load-items';
import { computeRow } from '../../src/services/records/listings/compute-row';
import { runTask } from '../../src/services/tasks/run-task';
import { filing } from './files';
import { bringingIn } from './gathering';
import { lookingBack } from './looking-back';
import { type Figure, limitFigure, percentile, print, ratioFigure, sideBySide, time } from './measure';
import { badging, storing } from './photos';
import { pricingLots } from './pricing';
import { printing } from './printing';
import { telling } from './telling';
import { wall } from './wall';

const args = process.argv.slice(2);
const asJson = args.includes('--json');
const sizes = (args.includes('--items') ? (args[args.indexOf('--items') + 1] ?? '') : '10000,100000')
  .split(',')
  .map(Number);
const only = args.includes('--only') ? (args[args.indexOf('--only') + 1] ?? '').split(',') : null;
const listings = args.includes('--listings') ? Number(args[args.indexOf('--listings') + 1]) : 2_000;
const prints = args.includes('--prints') ? Number(args[args.indexOf('--prints') + 1]) : 200;
const wants = (id: string) => only === null || only.includes(id);
const rounds = 5;
const db = database();
const say = (text: string) => asJson || console.log(text);

/** An inventory of this size, each item live on two of four accounts. */
async function fill(actor: Actor, size: number): Promise<void> {
  const [row] = rowsOf<{ count: number }>(await db.execute(sql`select count(*) as count from item`));
  if (!row?.count) {
    for (const one of catalogue().slice(0, 60)) {
      const { id } = await createItem(actor, { fields: one.fields, quantity: 5 });
      await addPhoto(actor, id, { bytes: await photograph(one.thing, 'front', 400), name: 'front.jpg' });
    }
  }
  await manyItems(db, size, say);
  await db.execute(
    sql`update listing set wanted = 'live', remote = 'live', sent = '{}', base = '{}', sent_price = wanted_price, sent_quantity = wanted_quantity, content_dirty = 0, live_since = utc_timestamp(3) - interval 9 day where remote = 'none'`,
  );
  await db.execute(sql`analyze table item, listing, job, change_record`);
}

/** Between two rounds: jobs and history of the last one go, so that every round does the same. */
async function clear(): Promise<void> {
  await db.execute(sql`truncate job`);
  await db.execute(sql`truncate task`);
  await db.execute(sql`truncate change_record`);
  await db.execute(
    sql`update listing set busy = 0, sent_price = wanted_price where busy = 1 or sent_price <> wanted_price`,
  );
}

const everything = { kind: 'filter' as const, filter: {}, except: [] };
const lower = {
  selection: everything,
  steps: [onItem('price', { verb: 'percent', basisPoints: -500 })],
};

const silent = pino({ level: 'silent' });

/** Applied to the end: by the request as long as it waits, then as the background goes on with it. */
async function applied(actor: Actor, edit: Omit<Parameters<typeof applyEdit>[1], 'title' | 'send'>): Promise<void> {
  const begun = await applyEdit(actor, { ...edit, send: true, title: 'bench' });
  while (await runTask('bench', silent, () => false));
  const [row] = rowsOf<{ state: string; done: number }>(
    await db.execute(sql`select state, done_count as done from task where id = ${begun.taskId}`),
  );
  if (row?.state !== 'done') throw new Error(`the change ended as ${row?.state}`);
}

async function applying(actor: Actor, size: number): Promise<Figure[]> {
  const ours = async () => {
    await clear();
    return time(() => applied(actor, lower));
  };
  const raw = () => time(() => pool().query('update item set price = round(price * 0.95) where archived = 0'));
  const both = await sideBySide(rounds, ours, raw);
  const [queued] = rowsOf<{ jobs: number }>(await db.execute(sql`select count(*) as jobs from job`));
  say(
    `  ${queued?.jobs} jobs and as many history rows as items were written in each round; raw spread ${(both.spread * 100).toFixed(0)} %`,
  );
  await clear();
  return [ratioFigure(`P1 price −5 % applied, ${size} items`, both, 5)];
}

/** Every listing of these items computed, and nothing else: the baseline of a change of words. */
async function computeAll(size: number): Promise<number> {
  const accounts = new Map((await loadAccounts(db)).map((one) => [one.id, one]));
  let spent = 0;
  for (let after = 0; ; ) {
    const rows = rowsOf<{ id: number }>(
      await db.execute(sql`select id from item where archived = 0 and id > ${after} order by id limit 500`),
    );
    const last = rows.at(-1);
    if (!last) return spent;
    const ids = rows.map((one) => one.id);
    const items = new Map((await loadItems(db, ids)).map((one) => [one.id, one]));
    const listings = await db.select().from(listing).where(inArray(listing.itemId, ids));
    spent += await time(async () => {
      for (const row of listings) {
        const [item, account] = [items.get(row.itemId), accounts.get(row.accountId)];
        if (item && account) computeRow(item, row, account);
      }
    });
    after = last.id;
    if (after > size * 10) throw new Error('more items than were made');
  }
}

async function renaming(actor: Actor, size: number): Promise<Figure[]> {
  const ours: number[] = [];
  const raw: number[] = [];
  let most = 0;
  const watch = setInterval(() => {
    most = Math.max(most, process.memoryUsage().rss);
  }, 100);
  for (let round = 0; round < (size > 20_000 ? 1 : rounds); round++) {
    await clear();
    raw.push(await computeAll(size));
    ours.push(
      await time(() =>
        applied(actor, {
          selection: everything,
          steps: [onItem('title', { verb: 'before', text: `${round} ` })],
        }),
      ),
    );
  }
  clearInterval(watch);
  await clear();
  const pair = { ours: percentile(ours, 0.5), raw: percentile(raw, 0.5) };
  const memory = most / 2 ** 20;
  return [
    ratioFigure(`P1t text before the title applied, ${size} items`, pair, 1.5),
    {
      id: `P1t memory, ${size} items`,
      value: Math.round(memory),
      unit: 'MB',
      baseline: null,
      ratio: null,
      goal: '≤ 500 MB',
      ok: memory <= 500,
    },
  ];
}

async function previewing(size: number): Promise<Figure[]> {
  const first: number[] = [];
  for (let round = 0; round < rounds + 1; round++) first.push(await time(() => previewRows(lower)));
  const raw = () =>
    time(async () => {
      await pool().query(
        'select id, price, quantity, cost, weight_grams, category from item where archived = 0 order by id',
      );
      await pool().query(
        "select l.item_id, l.account_id, l.override_price from listing l join item i on i.id = l.item_id where i.archived = 0 and l.remote = 'live' order by l.item_id",
      );
    });
  const both = await sideBySide(rounds, () => time(() => previewCounts(lower)), raw);
  return [
    limitFigure(`P2 first screen of the preview, ${size} items`, percentile(first, 0.5), 200),
    ratioFigure(`P2 all counts of the preview, ${size} items`, both, 3),
  ];
}

const renamed = {
  selection: everything,
  steps: [onItem('title', { verb: 'before', text: 'New: ' })],
};

/** As after a quiet day: what was sent last is what would be computed now. */
async function sendAll(): Promise<void> {
  const accounts = new Map((await loadAccounts(db)).map((one) => [one.id, one]));
  for (let after = 0; ; ) {
    const rows = rowsOf<{ id: number }>(
      await db.execute(sql`select id from item where archived = 0 and id > ${after} order by id limit 500`),
    );
    const last = rows.at(-1);
    if (!last) return;
    const ids = rows.map((row) => row.id);
    const items = new Map((await loadItems(db, ids)).map((one) => [one.id, one]));
    const listings = await db.select().from(listing).where(inArray(listing.itemId, ids));
    const sent = listings.flatMap((row) => {
      const [item, account] = [items.get(row.itemId), accounts.get(row.accountId)];
      return item && account ? [[row.id, JSON.stringify(computeRow(item, row, account).content)]] : [];
    });
    await db.execute(
      sql`update listing l join (${valuesTable(['id', 'sent'], sent)}) v on v.id = l.id set l.sent = v.sent, l.content_dirty = 0`,
    );
    after = last.id;
  }
}

/** P2t: what a change of words comes to, seen before: the first rows, all counts, and how soon it stops. */
async function previewingWords(size: number): Promise<Figure[]> {
  const first: number[] = [];
  for (let round = 0; round < rounds + 1; round++) first.push(await time(() => previewRows(renamed)));
  await sendAll();
  const alone = await computeAll(size);
  const counting = await time(() => previewCounts(renamed));
  const stops: number[] = [];
  for (let round = 0; round < rounds; round++) {
    const counts = countEdit(renamed);
    for (let lines = 0; lines < 3 + round; lines++) await counts.next();
    // Who stops does so at any moment: while the next portion is under way.
    const under = counts.next();
    stops.push(await time(() => Promise.all([under, counts.return(undefined)])));
  }
  const speed = Math.round((alone / counting) * 100) / 100;
  return [
    limitFigure(`P2t first screen, ${size} items`, percentile(first, 0.5), 400),
    {
      id: `P2t all counts, ${size} items`,
      value: Math.round(counting),
      unit: 'ms',
      baseline: Math.round(alone),
      ratio: speed,
      goal: '≥ 0.8 × the speed of computing alone',
      ok: speed >= 0.8,
    },
    limitFigure(`P2t stopped, ${size} items`, percentile(stops, 0.95), 200),
  ];
}

const filters: [string, Partial<FindItems>, string][] = [
  ['none', {}, '1 = 1'],
  ['brand', { brand: 'Brask' }, "i.brand = 'Brask'"],
  ['category', { category: 'lenses' }, "(i.category = 'lenses' or i.category like 'lenses/%')"],
  ['condition', { condition: 'fair' }, "i.condition_grade = 'fair'"],
  ['place', { location: 'B' }, "i.location like 'B%'"],
  ['price', { priceMin: 5_000, priceMax: 9_000 }, 'i.price >= 5000 and i.price <= 9000'],
  ['stock', { quantityMax: 2 }, 'i.quantity <= 2'],
  ['stage', { stage: 'live' }, "i.id in (select item_id from listing where state in ('live', 'changed', 'conflict'))"],
  [
    'words',
    { q: 'tessaly range' },
    "match(i.title, i.sku, i.brand, i.model, i.location) against ('+tessaly* +range*' in boolean mode)",
  ],
];
const orders = [
  ['updated', 'updated_at'],
  ['title', 'title'],
  ['price', 'price'],
  ['quantity', 'quantity'],
  ['sku', 'sku'],
] as const;

async function paging(size: number): Promise<Figure[]> {
  const ours: number[] = [];
  const raw: number[] = [];
  let worst = { name: '', ratio: 0 };
  for (const [name, filter, where] of filters) {
    for (const [sort, column] of orders) {
      const one: number[] = [];
      const other: number[] = [];
      for (let round = 0; round < rounds; round++) {
        one.push(await time(() => findItems({ sort, dir: 'desc', limit: 100, ...filter })));
        other.push(
          await time(async () => {
            const [rows] = await pool().query(
              `select i.id, i.version, i.sku, i.title, i.brand, i.category, i.condition_grade, i.location, i.price, i.cost, i.quantity, i.currency, i.weight_grams, i.main_photo, i.photo_count, i.updated_at
               from item i where i.archived = 0 and ${where} order by i.${column} desc, i.id desc limit 101`,
            );
            const ids = (rows as { id: number }[]).map((row) => row.id);
            if (ids.length)
              await pool().query(
                'select id, item_id, account_id, state, blocking, override_price, remote_url from listing where item_id in (?)',
                [ids],
              );
          }),
        );
      }
      ours.push(...one);
      raw.push(...other);
      const ratio = percentile(one, 0.5) / percentile(other, 0.5);
      if (ratio > worst.ratio) worst = { name: `${name} by ${sort}`, ratio };
    }
  }
  say(`  worst single ratio: ${worst.name}, ${worst.ratio.toFixed(2)}`);
  return [
    ratioFigure(
      `P4 page of 100 rows, p95 of ${filters.length * orders.length} kinds, ${size} items`,
      { ours: percentile(ours, 0.95), raw: percentile(raw, 0.95) },
      2,
    ),
  ];
}

/** The shop's own items in ever new versions, so that the database is not what is measured. */
async function tellingAll(size: number): Promise<Figure[]> {
  const rows = rowsOf<{ id: number }>(await db.execute(sql`select id from item where sku not like 'N%' order by id`));
  const items = await loadItems(
    db,
    rows.map((row) => row.id),
  );
  return telling(items, await loadAccounts(db), size);
}

const actor = await ownerActor();
await connectAccounts(actor);
const figures: Figure[] = [];
for (const size of sizes) {
  say(`\nMaking an inventory of ${size} items …`);
  await fill(actor, ['P1', 'P1t', 'P2', 'P2t', 'P4', 'P5', 'P10', 'P11w', 'P12'].some(wants) ? size : 60);
  if (wants('P1')) figures.push(...(await applying(actor, size)));
  if (wants('P1t')) figures.push(...(await renaming(actor, size)));
  if (wants('P2')) figures.push(...(await previewing(size)));
  if (wants('P2t')) figures.push(...(await previewingWords(size)));
  if (wants('P4')) figures.push(...(await paging(size)));
  if (wants('P5')) figures.push(...(await filing(actor, size, say)));
  if (wants('P3')) figures.push(...(await tellingAll(size)));
  // Last of all: it gives every item other photos.
  if (wants('P11w')) figures.push(...(await wall(size)));
}
if (wants('P10')) figures.push(...(await bringingIn(actor, listings, say)));
if (wants('P12')) figures.push(...(await lookingBack(say)));
if (wants('P13p')) figures.push(...(await pricingLots(actor, 1_000)));
if (wants('P8')) figures.push(...(await storing(200)));
if (wants('P14p')) figures.push(...(await printing(prints)));
if (wants('P11')) figures.push(...(await badging(200)));
say('');
print(figures, asJson);
await closeDatabase();
