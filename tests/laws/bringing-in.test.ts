import { catalogue } from '../../demo/catalogue';
import { keptAsShown, toldBy } from '../../src/core/gather';
import { emptyItemFields, type Item } from '../../src/core/item';
import { type AccountContext, type Content, computeListing, type Overrides } from '../../src/core/listing';
import { diff } from '../../src/core/sync';
import { sampleItem } from '../../src/core/testing.test-data';
import { type Connector, connectors } from '../../src/markets';
import { varied } from '../support/varied';
import { echo } from './echo.test-data';
import { accountWith, rulesOfAll } from './rules-of-all.test-data';

const photos = [
  { hash: 'a'.repeat(64), width: 2_600, height: 2_600 },
  { hash: 'b'.repeat(64), width: 2_600, height: 1_950 },
];
const straps = sampleItem({
  title: 'Quay strap',
  quantity: 5,
  axes: [{ name: 'Colour', values: ['Black', 'Tan'] }],
  variations: [
    { values: ['Black'], on: true, sku: 'S-B', quantity: 2, price: null, barcode: '', key: 'k1' },
    {
      values: ['Tan'],
      on: true,
      sku: 'S-T',
      quantity: 3,
      price: { kind: 'own', amount: 4_500 },
      barcode: '',
      key: 'k2',
    },
  ],
});
const items: Item[] = [
  ...catalogue().map((one) => sampleItem({ ...one.fields, quantity: one.quantity, photos })),
  straps,
  sampleItem({ photos, lengthMm: 191, widthMm: 133, heightMm: 127, highlights: ['One', 'Two'] }),
];

async function shownBy(connector: Connector, content: Content): Promise<Content> {
  const { session } = echo(connector.market);
  return (await connector.create(session, { content, photoIds: ['p1'], idempotencyKey: 'k' })).content;
}

const account = async (connector: Connector): Promise<AccountContext> => {
  const rules = (await rulesOfAll()).find((one) => one.market === connector.market)?.rules;
  if (!rules) throw new Error(connector.market);
  return accountWith(rules);
};

const hidden = (connector: Connector, field: string) =>
  connector.hides.includes(field) || connector.shownWith([field], [field]).length === 0;

describe.each(connectors.map((connector) => [connector.name, connector] as const))('%s', (_name, connector) => {
  test('what was sent, read back and made an item of would be sent the same again', async () => {
    const shop = await account(connector);
    // What travels by feeds or batches is answered later: fewer of them.
    const many = connector.linesAtOnce ? 25 : 160;
    let compared = 0;
    for (const { what, item, overrides } of varied(items, shop.compiled.rules, many)) {
      const { content } = computeListing({ item, overrides, account: shop });
      const shown = await shownBy(connector, content);
      const { fields, quantity } = toldBy(shown, shop);
      const brought: Item = {
        ...sampleItem({ ...emptyItemFields, ...fields, photos }),
        sku: fields.sku || 'N-1',
        quantity: quantity ?? 1,
      };
      const numberThere = typeof shown.sku === 'string' ? shown.sku : null;
      const wanted = (own: Overrides) =>
        computeListing({ item: brought, overrides: own, account: shop, numberThere }).content;
      const kept = keptAsShown(shown, wanted, (field) => hidden(connector, field));
      const now = wanted(kept.overrides);
      // Nothing would have to be sent; units follow the ledger.
      const left = diff(kept.sent, now).filter((one) => one.field !== 'quantity');
      expect([what, item.title, left]).toEqual([what, item.title, []]);
      // And what they show stands in what counts as sent, word for word.
      for (const [field, value] of Object.entries(shown))
        if (!['sku', 'variations', 'quantity'].includes(field))
          expect([what, field, kept.sent[field]]).toEqual([what, field, value]);
      compared++;
    }
    expect(compared).toBe(many);
  }, 60_000);
});

test('an item brought in says what its listing says, and offers what it offered', async () => {
  const hallowick = connectors.find((one) => one.market === 'hallowick');
  if (!hallowick) throw new Error('no such marketplace');
  const shop = await account(hallowick);
  const item = sampleItem({
    photos,
    lengthMm: 191,
    widthMm: 133,
    heightMm: 127,
    quantity: 4,
    countryOfOrigin: 'Norland',
  });
  const { content } = computeListing({ item, overrides: {}, account: shop });
  const told = toldBy(await shownBy(hallowick, content), shop);
  expect(told.fields).toMatchObject({
    title: item.title.slice(0, 75),
    brand: 'Brask',
    sku: item.sku,
    price: item.price,
    attributes: { 'Film format': '35 mm', Colour: 'Black' },
  });
  expect(told).toMatchObject({ quantity: 4, isCapped: false });
  // “Used, fine” may mean two of our grades; the lower one promises nothing that was not said.
  expect(told.grades).toEqual(['excellent', 'very-good']);
  expect(told.fields.condition).toBe('very-good');
});
