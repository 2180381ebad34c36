import { sql } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import { rate } from '../../../src/db/schema';
import { recordSale } from '../../../src/services/stock/record-sale';
import { readyItem } from '../../support/items';
import { accountOf, call, stack } from '../../support/stack';

type Sale = { orderId: string; total: number; net: number | null; netCurrency: string; currency: string };
const db = database();
const day = new Date().toISOString().slice(0, 10);
const order = (sku: string, currency: string, total: number) => ({
  orderId: `CU-${process.pid}-${Date.now()}-${currency}`,
  line: 0,
  rawState: null,
  remoteListingId: 'none',
  sku,
  title: 'A thing from elsewhere',
  quantity: 1,
  unitPrice: total,
  total,
  fee: Math.round(total / 10),
  buyerPostage: 0,
  discount: 0,
  parcelShare: 1,
  label: 0,
  collected: false,
  personal: null,
  currency,
  buyerTown: '',
  variation: null,
  soldAt: new Date(),
  changedAt: new Date(),
  cancelled: false,
});
afterAll(closeDatabase);

test('a sale in another currency keeps the rate of its day, and nothing of two currencies is added', async () => {
  const shop = await accountOf('Shopfront');
  const { id, sku } = await readyItem({ cost: 1_000 }, 9);
  // One euro is worth 160 yen, which have no cents; half a dinar, which has three decimals; of crowns nothing is known.
  const rates = [
    { currency: 'JPY', millionths: 160_000_000 },
    { currency: 'KWD', millionths: 500_000 },
  ];
  for (const one of rates)
    await db
      .insert(rate)
      .values({ base: 'EUR', day, readAt: new Date(), ...one })
      .onDuplicateKeyUpdate({ set: { millionths: one.millionths } });
  for (const [currency, total] of [
    ['JPY', 16_000],
    ['KWD', 50_000],
    ['SEK', 50_000],
  ] as const)
    await recordSale(shop, order(sku, currency, total));
  // The rate of another day changes nothing of what was sold.
  await db.insert(rate).values({ base: 'EUR', day: '2999-01-01', currency: 'JPY', millionths: 1, readAt: new Date() });
  try {
    const { sales } = (await call<{ sales: Sale[] }>('GET', `/sales?item=${id}`)).body;
    const of = (currency: string) => sales.find((one) => one.currency === currency);
    expect(of('JPY')).toMatchObject({ total: 16_000, net: 9_000 - 1_000 - 60, netCurrency: 'EUR' });
    expect(of('KWD')).toMatchObject({ total: 50_000, net: 9_000 - 1_000 - 60, netCurrency: 'EUR' });
    expect(of('SEK')).toMatchObject({ net: null });
    const csv = await (
      await fetch(`${stack.base}/api/v1/sales/file?item=${id}`, { headers: { authorization: `Bearer ${stack.token}` } })
    ).text();
    expect(
      csv
        .split('\r\n')
        .filter((line) => line.includes(',JPY,'))
        .join(),
    ).toContain(',16000,1600,0,0,JPY,10.00,0.00,0.60,79.40,EUR,');
    expect(
      csv
        .split('\r\n')
        .filter((line) => line.includes(',KWD,'))
        .join(),
    ).toContain(',50.000,5.000,0.000,0.000,KWD,10.00,0.00,0.60,79.40,EUR,');
    expect(
      csv
        .split('\r\n')
        .filter((line) => line.includes(',SEK,'))
        .join(),
    ).toContain(',500.00,50.00,0.00,0.00,SEK,10.00,0.00,0.60,,EUR,');
  } finally {
    await db.delete(rate).where(sql`day = '2999-01-01' or currency in ('JPY', 'KWD')`);
  }
});
