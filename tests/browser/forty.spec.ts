import { expect, type Locator, type Page, test } from '@playwright/test';
import { publishItems, readyFilm, readyItem, sheet, stateOn, strapOfTwo } from '../support/items';
import { accountOf, call, marketListings, until } from '../support/stack';
import { Hand } from './hand';
import { signedIn } from './steps';

const sentence = 'Returns within 30 days, postage at our cost.';
type Made = { id: number; sku: string };
type Shop = { supplier: string; live: Made[]; all: Made[] };

/** Forty unlike items: single pieces and quantities, two with combinations, some live on three accounts, some written for. */
async function fortyItems(supplier: string): Promise<Shop> {
  const places = await Promise.all(['Hallowick', 'Oakhand', 'Shopfront'].map(accountOf));
  const live = [await readyFilm(3), await readyFilm(5), await readyItem(strapOfTwo), await readyItem(strapOfTwo)];
  const rest: Made[] = [];
  for (let n = live.length; n < 40; n++)
    rest.push(n % 3 ? await readyItem({ price: 2_000 + n * 111 }) : await readyFilm(n));
  const all = [...live, ...rest];
  await call('POST', '/edits', {
    selection: { kind: 'items', ids: all.map((one) => one.id) },
    steps: [{ field: 'supplier', do: { verb: 'set', value: supplier } }],
    send: false,
  });
  await publishItems(
    live.map((one) => one.id),
    places,
  );
  for (const { id } of live)
    await until(
      () => Promise.all(places.map((one) => stateOn(id, one))),
      (states) => states.every((state) => state === 'live'),
      90_000,
    );
  const [hallowick, oakhand, shopfront] = places;
  const own = (item: Made | undefined, account: number | undefined, field: string, value: unknown) =>
    call('PUT', `/items/${item?.id}/listings/${account}`, { field, value });
  await own(live[0], oakhand, 'description', 'Written for here alone.');
  await own(live[1], hallowick, 'price', 3_300);
  await own(live[3], shopfront, 'title', 'A strap by another name');
  return { supplier, live, all };
}

const there = async (market: string, { sku }: Made) =>
  JSON.stringify((await marketListings(market)).find((one) => one.summary.reference.startsWith(sku)) ?? '');
const priceOf = async ({ id }: Made) => (await sheet(id)).item.price;

/** What the marketplaces' own pages say after it was sent, and after it was taken back. */
async function seenOutside({ live }: Shop, isDone: boolean): Promise<void> {
  for (const market of ['oakhand', 'shopfront'])
    for (const one of live)
      await until(
        () => there(market, one),
        (text) => text.length > 10 && text.includes(sentence) === isDone,
        90_000,
      );
  for (const one of live)
    await until(
      () => there('hallowick', one),
      (text) => text.includes('"free"') === isDone && !text.includes(sentence),
      90_000,
    );
}

/** Three are changed by somebody else; then all is taken back, and those three are named. */
async function takenBack(page: Page, hand: Hand, shop: Shop): Promise<void> {
  const three = shop.all.slice(10, 13);
  for (const one of three)
    await call('PATCH', `/items/${one.id}`, {
      baseVersion: (await sheet(one.id)).item.version,
      patch: { price: 7_777 },
    });
  await hand.click(page.getByRole('button', { name: 'Take the whole change back' }));
  await expect(page.getByText('These were changed since')).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: 'is 77.77 now' })).toHaveCount(three.length);
  await seenOutside(shop, false);
  expect(await Promise.all(three.map(priceOf))).toEqual([7_777, 7_777, 7_777]);
}

/** Before it is sent: the steps are right, one line is taken out, one account is looked at. */
async function lookedAt(page: Page, hand: Hand, shop: Shop): Promise<Made> {
  const out = shop.all.at(20) as Made; // there are forty
  const table = page.getByRole('region', { name: 'Before and after' });
  await hand.click(page.getByRole('group', { name: 'Seen as' }).getByRole('button', { name: 'Oakhand' }));
  await expect(table.locator('ins').getByText(sentence).first()).toBeVisible();
  await hand.click(page.getByRole('checkbox', { name: `Change ${out.sku}` }));
  await expect(page.getByText('39 of 39 items change')).toBeVisible();
  return out;
}

const fromInventory = async (page: Page, supplier: string) => {
  const where = JSON.stringify({ all: [{ field: 'supplier', op: 'is', value: supplier }] });
  await page.goto(`/?where=${encodeURIComponent(where)}`);
  await expect(page.getByText('40 items', { exact: true })).toBeVisible();
};

async function sentAndTold(page: Page, shop: Shop, out: Made, price: number): Promise<void> {
  await expect(page.getByRole('heading', { name: '39 items are changed' })).toBeVisible();
  await seenOutside(shop, true);
  expect(await priceOf(out)).toBe(price);
  const prices = await Promise.all(shop.all.filter((one) => one !== out).map(priceOf));
  expect(prices.every((one) => one % 100 === 90 && one >= 1_500)).toBe(true);
}

test('forty unlike items by keyboard', async ({ page }) => {
  const shop = await fortyItems(`K${Date.now().toString(36)}`);
  await signedIn(page);
  await fromInventory(page, shop.supplier);
  const hand = new Hand(page);
  await page.getByRole('grid', { name: 'Inventory' }).focus();
  await hand.press('Control+a');
  await hand.press('e');
  await expect(page.getByPlaceholder('-5')).toBeFocused();
  await hand.type('-5');
  await hand.next('.90');
  await hand.next('15');
  const step = async (field: string) => {
    await hand.press('Alt+a');
    await hand.type(field);
  };
  await step('Keyw');
  await hand.next();
  await hand.next();
  await hand.next('autumn, harbour');
  await step('Descr');
  await hand.next();
  await hand.next('on ch');
  await hand.next('oak, shop');
  await hand.next(sentence);
  // Of a marketplace's own fields the place comes first.
  await hand.press('Alt+a');
  await hand.next();
  await hand.next('on ch');
  await hand.next('hall');
  await expect(page.getByLabel('Field of step 4').getByRole('option', { name: 'Postage', exact: true })).toBeAttached();
  await hand.press('Shift+Tab', 3);
  await hand.type('Postage');
  await hand.press('Tab', 4);
  await hand.type('free');
  await step('Price');
  await hand.next('Change by an');
  await hand.next('on ch');
  await hand.next('hall');
  await hand.next('+4.50');
  const out = await lookedAt(page, hand, shop);
  const price = await priceOf(out);
  await hand.press('Alt+s');
  await sentAndTold(page, shop, out, price);
  await takenBack(page, hand, shop);
  console.log(`By keyboard: ${hand.told}`);
  expect(hand.keys + hand.clicks).toBeLessThan(40);
});

test('forty unlike items by mouse', async ({ page }) => {
  const shop = await fortyItems(`M${Date.now().toString(36)}`);
  await signedIn(page);
  await fromInventory(page, shop.supplier);
  const hand = new Hand(page);
  // A choice is two clicks: it is opened, and one is taken.
  const choose = async (what: Locator, label: string) => {
    hand.clicks += 2;
    await what.selectOption({ label });
  };
  const type = async (what: Locator, text: string) => {
    await hand.click(what);
    await hand.type(text);
  };
  await hand.click(page.getByRole('grid', { name: 'Inventory' }).getByRole('checkbox').first());
  await hand.click(page.getByRole('button', { name: 'Choose all 40' }));
  await hand.click(page.getByRole('toolbar', { name: 'Chosen items' }).getByRole('button', { name: 'Change' }));
  // The value has the focus already.
  await expect(page.getByPlaceholder('-5')).toBeFocused();
  await hand.type('-5');
  await choose(page.getByLabel('Ending'), '.90');
  await type(page.getByLabel('Never under, EUR'), '15');
  const add = () => hand.click(page.getByRole('button', { name: 'Add a step' }));
  const card = (n: number) => page.getByRole('listitem').filter({ has: page.getByLabel(`Field of step ${n}`) });
  await add();
  await choose(page.getByLabel('Field of step 2'), 'Keywords');
  await type(page.getByLabel('Entries'), 'autumn, harbour');
  await add();
  await choose(page.getByLabel('Field of step 3'), 'Description');
  await choose(page.getByLabel('Where step 3 works'), 'on chosen accounts');
  await type(page.getByLabel('Names of the accounts of step 3'), 'oak, shop');
  await type(card(3).getByLabel('Text'), sentence);
  await add();
  await choose(page.getByLabel('Where step 4 works'), 'on chosen accounts');
  await hand.click(card(4).getByRole('checkbox', { name: 'Hallowick', exact: true }));
  await choose(page.getByLabel('Field of step 4'), 'Postage');
  hand.clicks += 2;
  await card(4).getByLabel('Value').selectOption('free');
  await hand.click(page.getByRole('button', { name: 'Copy step 4' }));
  await choose(page.getByLabel('Field of step 5'), 'Price');
  await choose(page.getByLabel('Step 5', { exact: true }), 'Change by an amount');
  await type(card(5).getByLabel('Amount, EUR'), '+4.50');
  const out = await lookedAt(page, hand, shop);
  const price = await priceOf(out);
  await hand.click(page.getByRole('button', { name: /^Save and send \d+ listings/ }));
  await sentAndTold(page, shop, out, price);
  await takenBack(page, hand, shop);
  console.log(`By mouse: ${hand.told}`);
  expect(hand.keys + hand.clicks).toBeLessThan(40);
});
