import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { eq, sql } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import { inbox, item, job, listing } from '../../../src/db/schema';
import { audit } from '../../../src/services/audit/audit';
import { publishItems, readyItem, stateOn } from '../../support/items';
import { runScript } from '../../support/run-script';
import { accountOf, call, marketListings, stack, until } from '../../support/stack';

const db = database();
afterAll(closeDatabase);

const textsOf = async (id: string) =>
  (await audit({ mend: false })).found.find((one) => one.id === id)?.named.map((one) => one.text) ?? [];

test('what does not add up is found, and only that', async () => {
  const shop = await accountOf('Shopfront');
  const { id, sku } = await readyItem({}, 3);
  const axes = [{ name: 'Colour', values: ['Black', 'Tan'] }];
  const row = (value: string) => ({ values: [value], on: true, sku: '', quantity: 4, price: null, barcode: '' });
  const varied = await readyItem({ axes, variations: [row('Black'), row('Tan')], category: 'accessories/straps' });
  const isOurs = (texts: string[]) => texts.filter((text) => text.includes(sku) || text.includes(varied.sku));
  expect(isOurs(await textsOf('stock'))).toEqual([]);
  expect(isOurs(await textsOf('combinations'))).toEqual([]);

  await db.update(item).set({ quantity: 7 }).where(eq(item.id, id));
  expect(isOurs(await textsOf('stock'))).toEqual([`${sku}: 7 here, 3 by the ledger`]);
  await db.update(item).set({ quantity: 3 }).where(eq(item.id, id));

  await db.execute(sql`update item set variations = json_set(variations, '$[1].quantity', 9) where id = ${varied.id}`);
  expect(isOurs(await textsOf('combinations'))).toEqual([`${varied.sku}, Tan: 9 here, 4 by the ledger`]);
  await db.execute(sql`update item set variations = json_set(variations, '$[1].quantity', 4) where id = ${varied.id}`);

  const stray = join(stack.dataFolder, 'photos', 'ff', `ffff${process.pid}.jpg`);
  mkdirSync(dirname(stray), { recursive: true });
  writeFileSync(stray, 'x');
  expect(await textsOf('files')).toContain(`ffff${process.pid}.jpg`);
  rmSync(stray);

  const messageId = `audit-${process.pid}-${Date.now()}`;
  await db.insert(inbox).values({
    messageId,
    accountId: shop,
    type: 'sale',
    data: { order: messageId },
    state: 'failed',
    message: 'unreadable',
    dueAt: new Date(),
    receivedAt: new Date(),
  });
  expect((await textsOf('events')).join()).toContain(messageId);
  await db.delete(inbox).where(eq(inbox.messageId, messageId));
});

test('an offer that stands there wrongly, with nothing on its way, is put right by itself', async () => {
  const shop = await accountOf('Shopfront');
  const { id, sku } = await readyItem({}, 5);
  await publishItems([id], [shop]);
  await until(
    () => stateOn(id, shop),
    (state) => state === 'live',
  );
  // As if a change had been lost: fewer are there than are offered, and no job tells it.
  await call('POST', '/accounts/hold', { accounts: [shop], stopped: true });
  await call('POST', `/items/${id}/stock`, { how: 'set', units: 2, reason: 'counted' });
  const [row] = await db.select().from(listing).where(sql`item_id = ${id} and account_id = ${shop}`);
  await db.delete(job).where(sql`live_listing = ${row?.id}`);
  await db
    .update(listing)
    .set({ busy: false })
    .where(eq(listing.id, row?.id ?? 0));
  expect((await textsOf('offers')).join()).toContain(`${sku} on Shopfront: 5 offered, 2 wanted`);
  await call('POST', '/accounts/hold', { accounts: [shop], stopped: false });
  const { body } = await call<{ found: { id: string; mended: number }[] }>('POST', '/audit', {});
  expect(body.found.find((one) => one.id === 'offers')?.mended).toBeGreaterThan(0);
  await until(
    () => marketListings('shopfront', sku),
    ([one]) => one?.summary.quantity === 2,
  );
  await until(
    async () => (await textsOf('offers')).join(),
    (texts) => !texts.includes(sku),
  );
});

test('the command says what it finds, and ends with 0 only when that is nothing', async () => {
  const { id } = await readyItem({}, 3);
  await db.update(item).set({ quantity: 8 }).where(eq(item.id, id));
  const ended = await runScript('bin/audit.mjs');
  await db.update(item).set({ quantity: 3 }).where(eq(item.id, id));
  expect(ended.stdout).toContain('8 here, 3 by the ledger');
  expect(ended.status).toBe(1);
});
