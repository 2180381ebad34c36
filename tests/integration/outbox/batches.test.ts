import type { Content } from '../../../src/core/listing';
import { connectorOf } from '../../../src/markets';
import { readyItem } from '../../support/items';
import { previewOn } from '../../support/preview';
import { openSeller } from '../../support/sellers';
import { control, marketListings } from '../../support/stack';

/** What a strap that both catalogues know is on a marketplace, to be sent under many numbers. */
async function contentOn(market: string): Promise<Content> {
  const item = await readyItem(
    {
      title: 'Grainhouse Quay 90 cm leather camera strap',
      brand: 'Grainhouse',
      model: 'Quay 90 cm',
      category: 'accessories/straps',
      condition: 'new',
      conditionNote: '',
      price: 3_900,
      weightGrams: 120,
    },
    3,
  );
  const preview = await previewOn(item.id, market);
  return Object.fromEntries(preview.values.map((one) => [one.field, one.value])) as Content; // what the sheet would send
}

const open = async (market: string) => {
  const seller = `lines-${process.pid}-${Date.now().toString(36)}`;
  const session = await openSeller(market, seller);
  const theirs = async () => (await marketListings(market)).filter((one) => one.seller === seller);
  return { session, theirs, connector: connectorOf(market) };
};
const sending = (content: Content, sku: string) => ({
  content: { ...content, sku },
  photoIds: [],
  idempotencyKey: sku,
});

afterEach(() => Promise.all(['lotbarn', 'crateway'].map((market) => control(market, 'calm'))));

test('a batch that is too much breaks off in the middle: it is cut, and nothing is made twice', async () => {
  const content = await contentOn('lotbarn');
  const { session, theirs, connector } = await open('lotbarn');
  const numbers = Array.from({ length: 1_300 }, (_, index) => `LB-${index}`);
  const made = await Promise.all(numbers.map((sku) => connector.create(session, sending(content, sku))));
  expect(new Set(made.map((one) => one.remoteId)).size).toBe(1_300);
  expect(made.map((one) => one.sku)).toEqual(numbers);
  const there = await theirs();
  expect(there).toHaveLength(1_300);
  expect(new Set(there.map((one) => one.summary.reference)).size).toBe(1_300);

  // Changes and endings of many go the same way.
  const some = made.slice(0, 300);
  const changed = await Promise.all(
    some.map((one) =>
      connector.change(session, one.remoteId, sending({ ...content, price: 4_200 }, one.sku), ['price']),
    ),
  );
  expect(changed.every((one) => one.content.price === 4_200)).toBe(true);
  await Promise.all(some.map((one) => connector.end(session, one.remoteId, '')));
  expect((await theirs()).filter((one) => one.state === 'live')).toHaveLength(1_000);
}, 300_000);

test('a feed whose answer got lost is asked for again, not sent again; a refused row fails alone', async () => {
  const content = await contentOn('crateway');
  const { session, theirs, connector } = await open('crateway');
  await control('crateway', 'fault', { kind: 'drop-after', times: 2, method: 'POST' });
  const numbers = Array.from({ length: 25 }, (_, index) => `CR-${index}`);
  const results = await Promise.allSettled([
    ...numbers.map((sku) => connector.create(session, sending(content, sku))),
    connector.create(session, sending({ ...content, price: 1 }, 'CR-cheap')),
  ]);
  expect(results.map((one) => one.status)).toEqual([...numbers.map(() => 'fulfilled'), 'rejected']);
  const there = await theirs();
  expect(there.map((one) => one.summary.reference).sort()).toEqual([...numbers].sort());
}, 120_000);

test('an attempt of which nothing is known is looked for only after every feed is worked off', async () => {
  const content = await contentOn('crateway');
  const { session, connector } = await open('crateway');
  // Taken by them, worked off when somebody asks: as after a crash right behind the sending.
  const body = {
    lines: [{ kind: 'new', offer: { ...(await wireOf(connector.create, content)), number: 'CR-late' } }],
  };
  await session.send({ method: 'POST', path: '/feeds', body, idempotencyKey: `late-${Date.now()}` });
  const found = await connector.findLive(session, 'CR-late');
  expect(found.map((one) => one.sku)).toEqual(['CR-late']);
}, 120_000);

/** What would go over the line for this content. */
async function wireOf(
  create: ReturnType<typeof connectorOf>['create'],
  content: Content,
): Promise<Record<string, unknown>> {
  let offer: Record<string, unknown> = {};
  const session = {
    send: async ({ body }: { body?: unknown }) => {
      offer = (body as { lines: { offer: Record<string, unknown> }[] }).lines[0]?.offer ?? {};
      throw new Error('only looking');
    },
  };
  await create(session, sending(content, 'CR-look')).catch(() => undefined);
  return offer;
}
