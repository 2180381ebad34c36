import { expect, type Locator, type Page, test } from '@playwright/test';
import { commandCode } from '../../src/core/batch';
import { consignmentOf, placesOf } from '../support/consignments';
import { batchOf, bookCode, linesOf, newBatch, settingsWith } from '../support/intake';
import { sheet } from '../support/items';
import { call, control, until } from '../support/stack';
import { signedIn } from './steps';

const titles = 8;
const each = 5;
const codes = Array.from({ length: titles }, (_, index) => bookCode(171 + index));

const shoot = async (page: Page, text: string) => {
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
};

/** A kitchen scale: what each piece weighs. */
async function weigh(ids: number[]): Promise<void> {
  for (const id of ids) {
    const { version } = (await sheet(id)).item;
    await call('PATCH', `/items/${id}`, { patch: { weightGrams: 420 }, baseVersion: version });
  }
}

/** Looks what has arrived; where that was heard by itself meanwhile, nothing is left to be pressed. */
const look = (card: Locator) =>
  card
    .getByRole('button', { name: 'Look what has arrived' })
    .click({ timeout: 5_000 })
    .catch(() => undefined);

test('from the pile to the warehouses: forty pieces, three warehouses, four boxes, one short, seen and settled', async ({
  page,
}) => {
  test.setTimeout(240_000);
  const batch = await newBatch({ name: 'Handbooks', settings: settingsWith({ grade: 'good', cost: 200 }) });
  await page.addInitScript(() => {
    const aloud: string[] = [];
    Object.assign(window, { aloud });
    // A voice that writes down what it says.
    Object.defineProperty(window, 'speechSynthesis', {
      value: { cancel: () => undefined, speak: ({ text }: { text: string }) => aloud.push(text) },
    });
  });
  await signedIn(page);
  await page.goto(`/batches/${batch}`);
  await expect(page.getByRole('textbox', { name: 'Scan a code, or type it or a name' })).toBeFocused();
  for (let round = 0; round < each; round++)
    for (const code of codes) {
      await shoot(page, code);
      // The same thing again is another piece; within a second it would be asked.
      await page.waitForFunction(() => document.querySelector<HTMLInputElement>('input.mono')?.value === '');
    }
  await until(
    () => linesOf(batch),
    (lines) => lines.length === titles * each && lines.every((line) => line.isDone),
    60_000,
  );
  const items = [...new Set((await linesOf(batch)).map((line) => line.item?.id ?? 0))];
  expect(items).toHaveLength(titles);
  await weigh(items);
  expect((await batchOf(batch)).totals.units).toBe(titles * each);

  // Chosen and planned.
  await page.getByRole('button', { name: 'Send in …' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Handbooks to the warehouses');
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByText('40 units')).toBeVisible();
  await page.getByRole('button', { name: 'Ask for a plan' }).click();
  const plan = page.getByRole('article', { name: 'Plan 1' });
  for (const name of ['Northwick', 'Harbour Bend', 'Southfold']) await expect(plan).toContainText(name);
  await page.getByRole('button', { name: 'Another split' }).click();
  await expect(page.getByRole('article', { name: 'Plan 2' })).toContainText('20 units');
  await plan.getByRole('button', { name: 'Take this plan' }).click();
  const id = Number(/\/consignments\/(\d+)/.exec(page.url())?.[1]);

  // Packed while scanning: each piece is told its box; a command label begins the next one.
  await expect(page.getByRole('textbox', { name: 'Scan a piece, or the label of a box' })).toBeFocused();
  const said = page.locator('#packed-said');
  let left = titles * each;
  for (let round = 0; round < each; round++)
    for (const code of codes) {
      await shoot(page, code);
      left--;
      await expect(said).toContainText(left === 0 ? 'All is packed' : `${left} unit`);
      if (left === 32) {
        await shoot(page, commandCode({ do: 'box' }));
        await expect(said).toContainText('is closed');
      }
    }
  await shoot(page, codes[0] ?? '');
  await expect(said).toContainText('too many');
  const packed = await consignmentOf(id);
  // Each box was named aloud, and where another one begins.
  const aloud = await page.evaluate(() => (window as unknown as { aloud: string[] }).aloud);
  expect(aloud).toHaveLength(titles * each);
  expect(aloud.filter((one) => one.endsWith('new box'))).toHaveLength(4);
  expect(packed.shipments.map((one) => one.boxes.length).sort()).toEqual([1, 1, 2]);

  // Weighed, measured, told, shipped; a box that is too heavy is said at its place.
  for (const { warehouseName, boxes } of packed.shipments) {
    const card = page.getByRole('region', { name: warehouseName, exact: true });
    for (const { number } of boxes) {
      await card.getByLabel(`Weight of box ${number} in kilograms`).fill(number === 1 ? '24' : '15');
      await card.getByLabel(`Sides of box ${number} in centimetres`).fill('40 x 30 x 30');
    }
    await card.getByRole('button', { name: 'Keep the boxes' }).click();
    await expect(card.getByText('Box 1 weighs 24 kg; at most 23 kg are taken')).toBeVisible();
    await card.getByLabel('Weight of box 1 in kilograms').fill('21.5');
    await card.getByRole('button', { name: 'Keep the boxes' }).click();
    await card.getByRole('button', { name: 'Tell them the boxes' }).click();
    const form = card.getByRole('form', { name: `Ship to ${warehouseName}` });
    await expect(form.getByLabel('Postage in all, EUR')).not.toHaveValue('');
    for (const { number } of boxes)
      await form.getByLabel(`Tracking of box ${number}`).fill(`FR-${warehouseName}-${number}`);
    await form.getByRole('button', { name: 'It is on its way' }).click();
    await expect(form).toHaveCount(0);
  }
  for (const item of items) expect(await placesOf(item)).toEqual({ here: 0, aside: 0, way: each, there: 0 });

  // One is short at receiving: seen, claimed, paid, settled.
  const [first] = packed.shipments;
  const short = first?.units[0];
  for (const one of packed.shipments)
    await control('crateway', 'receive', { shipment: one.remoteId, short: one === first ? `${short?.sku}:1` : '' });
  for (const { warehouseName } of packed.shipments) {
    const card = page.getByRole('region', { name: warehouseName, exact: true });
    await look(card);
    await expect(card.getByRole('columnheader', { name: 'Arrived' })).toBeVisible();
  }
  const card = page.getByRole('region', { name: first?.warehouseName ?? '', exact: true });
  await expect(card.getByText(`1 unit of ${short?.sku} did not arrive`)).toBeVisible();
  await card.getByRole('button', { name: 'Claim them' }).click();
  await expect(card.getByRole('list', { name: 'Claims' })).toContainText('is looked into');
  await control('crateway', 'claims', { shipment: first?.remoteId, answer: 'paid' });
  await look(card);
  await expect(card.getByText('All accounted for')).toBeVisible();
  await expect(page.getByText('Settled')).toBeVisible();

  // The ledger: what arrived is there, what was lost is gone, and the sheet tells both.
  for (const item of items)
    expect(await placesOf(item)).toEqual({ here: 0, aside: 0, way: 0, there: item === short?.item ? each - 1 : each });
  await page.goto(`/items/${short?.item}`);
  await page
    .getByRole('button', { name: /ledger/i })
    .first()
    .click();
  const ledger = page.getByRole('dialog');
  await expect(ledger).toContainText('4 at the warehouse of Crateway');
  for (const words of [
    'Set aside for a warehouse',
    'On the way to a warehouse',
    'Arrived at a warehouse',
    'Lost on the way',
  ])
    await expect(ledger).toContainText(words);
});
