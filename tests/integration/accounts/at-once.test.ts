import { and, eq, like } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import { account, mapping } from '../../../src/db/schema';
import { connectorOf } from '../../../src/markets';
import { refreshRules } from '../../../src/services/accounts/rules/refresh-rules';
import { readyItem } from '../../support/items';
import { accountOf, call, control, stack, until } from '../../support/stack';

afterAll(closeDatabase);

type Problem = { code: string; title: string };

test('a template that two people changed is not overwritten unseen', async () => {
  const name = `At once ${Date.now().toString(36)}`;
  const template = (fields: Record<string, string>, version?: number) => ({
    name,
    accounts: [],
    conditions: [{ field: 'location', op: 'is', value: name }],
    fields,
    ...(version === undefined ? {} : { version }),
  });
  const made = await call<{ id: number; version: number }>('POST', '/templates', template({ footer: 'One' }));
  const { id, version } = made.body;
  const first = await call<{ version: number }>('PUT', `/templates/${id}`, template({ footer: 'Two' }, version));
  expect(first.body.version).toBe(version + 1);
  const second = await call<Problem>('PUT', `/templates/${id}`, template({ footer: 'Three' }, version));
  expect(second.body).toMatchObject({ code: 'conflict', title: expect.stringContaining('changed meanwhile by') });
  const stands = async () =>
    (
      await call<{ templates: { id: number; fields: Record<string, string> }[] }>('GET', '/templates')
    ).body.templates.find((one) => one.id === id)?.fields;
  expect(await stands()).toEqual({ footer: 'Two' });
  await call('PUT', `/templates/${id}`, template({ footer: 'Three' }));
  expect(await stands()).toEqual({ footer: 'Three' });
  await call('DELETE', `/templates/${id}`);
});

test('an account that somebody else changed says so before anything of it is kept', async () => {
  const id = await accountOf('Shopfront');
  const footerNow = async () =>
    (
      await call<{ accounts: { id: number; footer: string; pricing: unknown; maps: unknown }[] }>('GET', '/accounts')
    ).body.accounts.find((one) => one.id === id);
  const before = await footerNow();
  const seen = { footer: before?.footer, pricing: before?.pricing, maps: before?.maps };
  const mine = await call('PATCH', `/accounts/${id}`, { footer: 'Mine', seen });
  expect(mine.status).toBeLessThan(300);
  const theirs = await call<Problem>('PATCH', `/accounts/${id}`, { footer: 'Theirs', seen });
  expect(theirs.body.code).toBe('conflict');
  expect((await footerNow())?.footer).toBe('Mine');
  await call('PATCH', `/accounts/${id}`, { footer: before?.footer ?? '', seen: { footer: 'Mine' } });
  expect((await footerNow())?.footer).toBe(before?.footer);
});

test('a product that several say at once is kept once', async () => {
  const account = await accountOf('Crateway');
  const item = await readyItem({ barcode: `20${String(Date.now()).slice(-9)}` });
  const choose = (id: string) =>
    call('POST', '/products/choose', {
      accountId: account,
      itemId: item.id,
      product: { id, name: `Product ${id}`, categoryId: null },
    });
  const answers = await Promise.all(['CW-1', 'CW-2', 'CW-3', 'CW-4', 'CW-5', 'CW-6'].map(choose));
  expect(answers.map((one) => one.status)).toEqual(answers.map(() => 201));
  const { barcode } = (await call<{ item: { barcode: string } }>('GET', `/items/${item.id}`)).body.item;
  const kept = await database()
    .select()
    .from(mapping)
    .where(and(eq(mapping.market, 'crateway'), like(mapping.source, `%${barcode}%`)));
  expect(kept).toHaveLength(1);
});

const set = (value: number) => control('shopfront', 'rule', { path: 'limits.title', value });
const published = async () =>
  (await (await fetch(`${stack.markets}/control/api/shopfront/rules`)).json()) as { limits: { title: number } };

test('who has read the rules before they became others, and is done later, does not bring the older ones back', async () => {
  const id = await accountOf('Shopfront');
  const rowNow = async () => {
    const [row] = await database().select().from(account).where(eq(account.id, id));
    if (!row) throw new Error('the account is there');
    return row;
  };
  const row = await rowNow();
  const { title } = (await published()).limits;
  const connector = connectorOf('shopfront');
  const read = connector.readRules.bind(connector);
  let newer = 0;
  const slow = jest.spyOn(connector, 'readRules').mockImplementationOnce(async (session) => {
    const older = await read(session);
    await set(title - 1);
    // The worker of the stack hears of it and stores the newer ones.
    newer = (await until(rowNow, (now) => now.rulesVersion > row.rulesVersion)).rulesVersion;
    return older;
  });
  try {
    await refreshRules(row);
    expect((await rowNow()).rulesVersion).toBe(newer);
  } finally {
    slow.mockRestore();
    await set(title);
  }
});
