import { closeDatabase } from '../../../src/db/client';
import type { ShopSettings } from '../../../src/services/records/accounts/read-settings';
import { readyItem } from '../../support/items';
import { accountOf, call } from '../../support/stack';

let before: ShopSettings['glossaries'] = {};
let lanesend = 0;
beforeAll(async () => {
  lanesend = await accountOf('Lanesend');
  before = (await call<ShopSettings>('GET', '/settings')).body.glossaries;
  await call('PATCH', `/accounts/${lanesend}`, { language: 'Norran' });
  await call('PUT', '/settings', {
    glossaries: {
      ...before,
      Norran: [
        { from: 'test camera', to: 'prøvekamera' },
        { from: 'Checked', to: 'Sett over' },
      ],
    },
  });
});
afterAll(async () => {
  await call('PATCH', `/accounts/${lanesend}`, { language: '' });
  await call('PUT', '/settings', { glossaries: before });
  await closeDatabase();
});

type Proposal = { field: string; value: unknown; maker: string; parts: { why: string }[] };
const proposalsFor = async (id: number, account?: number) =>
  (await call<{ proposals: Proposal[] }>('GET', `/items/${id}/wording${account ? `?account=${account}` : ''}`)).body
    .proposals;

test('where an account speaks another language its texts are proposed by one’s own terms, and it is said how', async () => {
  const item = await readyItem();
  const mine = (await proposalsFor(item.id, lanesend)).filter((one) => one.maker.includes('your own terms'));
  const title = mine.find((one) => one.field === 'title');
  expect(title?.value).toMatch(/^Brask K-2 prøvekamera \d+$/);
  expect(title?.parts[0]?.why).toContain('test camera → prøvekamera');
  expect(mine.find((one) => one.field === 'description')?.value).toContain('Sett over with a test film');
  // On an account that speaks as the items do, and for the item itself, there is none.
  for (const account of [await accountOf('Oakhand'), undefined])
    expect((await proposalsFor(item.id, account)).some((one) => one.maker.includes('your own terms'))).toBe(false);
});

test('many at once, kept for this account alone, and taken back as a whole', async () => {
  const items = [await readyItem(), await readyItem()];
  const titleOn = async (id: number) =>
    (
      await call<{ columns: { accountId: number; fields: { field: string; value: unknown; origin: string }[] }[] }>(
        'GET',
        `/items/${id}`,
      )
    ).body.columns
      .find((one) => one.accountId === lanesend)
      ?.fields.find((one) => one.field === 'title');
  const edited = await call<{ runId: number }>('POST', '/edits', {
    selection: { kind: 'items', ids: items.map((one) => one.id) },
    steps: [{ field: 'title', where: { on: 'accounts', accounts: [lanesend] }, do: { verb: 'by-terms' } }],
    send: false,
  });
  for (const { id } of items) {
    expect(await titleOn(id)).toMatchObject({ origin: 'override', value: expect.stringContaining('prøvekamera') });
  }
  await call('POST', `/runs/${edited.body.runId}/undo`, {});
  for (const { id } of items) expect((await titleOn(id))?.origin).not.toBe('override');
});

test('two that write at once: what somebody else changed on the account is said', async () => {
  const answer = await call<{ title: string }>('PATCH', `/accounts/${lanesend}`, {
    language: 'Other',
    seen: { language: 'Before' },
  });
  expect(answer.status).toBe(409);
  expect((await call('PUT', '/settings', { glossaries: { Norran: [{ from: '', to: 'x' }] } })).status).toBe(422);
});
