import { expect, type Page, test } from '@playwright/test';
import bwip from 'bwip-js/node';
import { commandCode } from '../../src/core/batch';
import { batchOf, bookCode, linesOf, newBatch, scan, settingsWith, strangeCode } from '../support/intake';
import { sheet } from '../support/items';
import { call, stack } from '../support/stack';
import { signedIn } from './steps';

const piles: number[] = [];
test.afterEach(async () => {
  for (const batch of piles.splice(0)) await takeBack(batch);
});

let used = (Math.floor(Date.now() / 1_000) % 100_000) * 50 + 20_000_000;
const fresh = () => strangeCode(used++);
const field = (page: Page) => page.getByRole('textbox', { name: 'Scan a code, or type it or a name' });
const lastPiece = (page: Page) => page.getByRole('region', { name: 'Last piece' });

/** As a scanner does it: all signs at once, and Enter. */
async function shoot(page: Page, text: string, end: 'Enter' | 'Tab' | '' = 'Enter'): Promise<void> {
  await page.keyboard.type(text);
  if (end) await page.keyboard.press(end);
}

type Seen = { scanned: [string, number][]; whole: [string, number][] };

/** What was scanned is not in stock any more: the next try meets what this one met. */
const takeBack = async (batch: number) => call('POST', `/runs/${(await batchOf(batch)).runId}/undo`, {});

/** Notes in the page itself when a scan ended, and when everything that is known of its line had come. */
const noteTimes = (page: Page) =>
  page.addInitScript(() => {
    const seen: Seen = { scanned: [], whole: [] };
    Object.assign(window, { seen });
    window.addEventListener(
      'keydown',
      (event) => {
        if (event.key === 'Enter' && event.target instanceof HTMLInputElement)
          seen.scanned.push([event.target.value, performance.now()]);
      },
      true,
    );
    const ask = window.fetch;
    window.fetch = async (...given) => {
      const answer = await ask(...given);
      if (String(given[0]).includes('/batches/'))
        void answer
          .clone()
          .json()
          .then((body: { lines?: Line[]; done?: { lines: Line[] }[] }) => {
            const lines = [...(body.lines ?? []), ...(body.done ?? []).flatMap((one) => one.lines)];
            for (const line of lines) if (line.isDone) seen.whole.push([line.scanned, performance.now()]);
          })
          .catch(() => undefined);
      return answer;
    };
    type Line = { scanned: string; isDone: boolean };
  });

test('two hundred codes at three a second: every line right, none doubled, no key but the scans', async ({
  page,
  context,
}) => {
  test.setTimeout(600_000);
  const everyMs = 300;
  const grade = 'parts' as const;
  const settings = settingsWith({ grade, price: { by: 'cost', times: 300, plus: 0 }, cost: 100 });
  const there = await newBatch();
  const known = Array.from({ length: 30 }, fresh);
  for (const code of known) await scan(there, code, settings);
  const unknown = Array.from({ length: 20 }, fresh);
  const broken = Array.from({ length: 5 }, () => fresh().replace(/.$/, (digit) => String((Number(digit) + 1) % 10)));
  const books = Array.from({ length: 145 }, (_, index) => bookCode(index));
  const ordered = [...books, ...unknown, ...known, ...broken];
  // All kinds mixed, the same way each time.
  const codes = ordered.map((_, index) => ordered[(index * 77) % ordered.length] ?? '');
  expect(new Set(codes).size).toBe(200);

  const batch = await newBatch({ settings });
  piles.push(there, batch);
  await signedIn(page);
  await noteTimes(page);
  await page.goto(`/batches/${batch}`);
  await expect(field(page)).toBeFocused();
  const began = Date.now();
  let keys = 0;
  for (const [index, code] of codes.entries()) {
    if (index === 80) await context.setOffline(true);
    if (index === 120) await context.setOffline(false);
    await shoot(page, code);
    keys += code.length + 1;
    const rest = began + (index + 1) * everyMs - Date.now();
    // The pace itself: a scanner that is faster than any hand.
    if (rest > 0) await new Promise((resolve) => setTimeout(resolve, rest));
  }
  const tookMs = Date.now() - began;
  await expect(page.getByText(/^(Sending|No connection)/)).toHaveCount(0, { timeout: 120_000 });
  const lookedUpLater = async () => (await linesOf(batch)).filter((line) => !line.isDone).length;
  await expect.poll(lookedUpLater, { timeout: 120_000 }).toBe(0);
  const caughtUpAt = await page.evaluate(() => performance.now());
  await expect(page.getByLabel('Totals')).toContainText('195', { timeout: 120_000 });

  const lines = await linesOf(batch);
  expect(lines.map((line) => line.scanned).reverse()).toEqual(codes);
  const kinds = (some: string[]) => [
    ...new Set(lines.filter((line) => some.includes(line.scanned)).map((line) => `${line.kind} ${line.finding}`)),
  ];
  expect(kinds(known)).toEqual(['stock known']);
  expect(kinds(unknown)).toEqual(['item unknown']);
  expect(kinds(broken)).toEqual(['none broken']);
  expect(kinds(books).filter((one) => one !== 'item known')).toEqual(['item found']);
  const items = lines.filter((line) => line.kind === 'item').map((line) => line.item?.id ?? 0);
  expect(new Set(items).size).toBe(165);
  expect(lines.filter((line) => line.kind === 'item').every((line) => line.item?.quantity === 1)).toBe(true);
  expect(lines.filter((line) => line.kind === 'stock').every((line) => line.item?.quantity === 2)).toBe(true);

  const seen = await page.evaluate(() => (window as unknown as { seen: Seen }).seen);
  const wholeAt = new Map(seen.whole.slice().reverse());
  const waits = seen.scanned.map(([code, at], index) => ({ index, ms: (wholeAt.get(code) ?? Infinity) - at }));
  const isConnected = ({ index }: { index: number }) => index < 80 || index >= 120;
  const late = waits.filter((one) => isConnected(one) && one.ms > 1_000).map(({ index }) => index);
  const connected = waits.filter(isConnected).map(({ ms }) => ms);
  const within = (most: number) => connected.filter((ms) => ms <= most).length / connected.length;
  const middle = [...connected].sort((a, b) => a - b)[connected.length / 2] ?? 0;
  const caughtUp = caughtUpAt - (seen.scanned[120]?.[1] ?? 0);
  console.log(
    `200 codes in ${(tookMs / 1_000).toFixed(1)} s, ${(tookMs / 200).toFixed(0)} ms a piece, ${keys} keys, all of them the scanner's; ` +
      `${(within(1_000) * 100).toFixed(1)} % whole within a second, ${middle.toFixed(0)} ms in the middle, later than a second: ${late.join(' ') || 'none'}; all of the 40 without a connection ${(caughtUp / 1_000).toFixed(1)} s after it was back`,
  );
});

test('without a key: command labels switch grade, sentence, units and place, and take the last one back', async ({
  page,
}) => {
  const sentences = ['Spine creased', 'Name inside', 'Smells of smoke'];
  const { conditionSnippets } = (await call<{ conditionSnippets: Record<string, string[]> }>('GET', '/settings')).body;
  await call('PUT', '/settings', { conditionSnippets: { ...conditionSnippets, fair: sentences } });
  const batch = await newBatch({ settings: settingsWith({ place: 'BOX-09' }) });
  await signedIn(page);
  await page.goto(`/batches/${batch}`);
  await expect(field(page)).toBeFocused();
  await shoot(page, commandCode({ do: 'grade', grade: 'fair' }));
  await shoot(page, commandCode({ do: 'snippet', number: 3 }));
  await shoot(page, '1');
  await expect(page.getByText('Reads: Spine creased. Smells of smoke.')).toBeVisible();
  await shoot(page, commandCode({ do: 'quantity', units: 5 }));
  await expect(page.getByText('The next scan counts 5')).toBeVisible();
  const first = fresh();
  await shoot(page, first);
  await expect(lastPiece(page)).toContainText('× 5');
  await expect(lastPiece(page)).toContainText('BOX-09');
  await shoot(page, commandCode({ do: 'box' }));
  const second = fresh();
  await shoot(page, second);
  await expect(lastPiece(page)).toContainText('BOX-10');
  await shoot(page, commandCode({ do: 'undo' }));
  await expect(lastPiece(page)).toContainText('Taken back');
  await shoot(page, commandCode({ do: 'again' }));
  await expect
    .poll(async () => (await linesOf(batch)).map((line) => [line.scanned, line.units, line.isUndone]))
    .toEqual([
      [second, 1, false],
      [second, 1, true],
      [first, 5, false],
    ]);
  const [, , line] = await linesOf(batch);
  expect((await sheet(line?.item?.id ?? 0)).item).toMatchObject({
    conditionNote: 'Spine creased. Smells of smoke.',
    condition: 'fair',
    location: 'BOX-09',
    quantity: 5,
  });
});

test('a scanner that sends Tab, one that sends nothing, rubbish, and the same piece read twice', async ({ page }) => {
  const batch = await newBatch();
  await signedIn(page);
  await page.goto(`/batches/${batch}`);
  await expect(field(page)).toBeFocused();
  const [tab, bare] = [fresh(), fresh()];
  await shoot(page, tab, 'Tab');
  await expect(field(page)).toBeFocused();
  await expect(lastPiece(page)).toContainText(tab);
  await shoot(page, bare, '');
  await expect(lastPiece(page)).toContainText(bare);
  await shoot(page, '##');
  await expect(lastPiece(page)).toContainText('No code');
  const twice = fresh();
  // Both within a second, also on a busy machine.
  for (const _ of [1, 2]) {
    await field(page).fill(twice);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByText('came twice within a second')).toBeVisible();
  await page.getByRole('button', { name: 'Yes, twice' }).click();
  await expect(lastPiece(page)).toContainText('1 + 1 = 2');
  await expect(field(page)).toBeFocused();
  await shoot(page, twice);
  await expect(lastPiece(page)).toContainText('2 + 1 = 3');
});

test('what is kept without a connection is sent by the next visit, once', async ({ page, context }) => {
  const batch = await newBatch();
  await signedIn(page);
  await page.goto(`/batches/${batch}`);
  await expect(field(page)).toBeFocused();
  const codes = [fresh(), fresh(), fresh()];
  await context.setOffline(true);
  for (const code of codes) await shoot(page, code);
  await expect(page.getByText('3 scans wait here')).toBeVisible();
  await page.close({ runBeforeUnload: false });
  await context.setOffline(false);
  const again = await context.newPage();
  await again.goto(`/batches/${batch}`);
  await expect.poll(async () => (await linesOf(batch)).map((line) => line.scanned)).toEqual([...codes].reverse());
  expect((await batchOf(batch)).totals.units).toBe(3);
});

test('what is scanned into a batch that somebody has closed is not lost: it is told, and taken when it is open again', async ({
  page,
}) => {
  const batch = await newBatch();
  await signedIn(page);
  await page.goto(`/batches/${batch}`);
  await expect(field(page)).toBeFocused();
  const state = async (now: string) =>
    call('PATCH', `/batches/${batch}`, { baseVersion: (await batchOf(batch)).version, state: now });
  await state('closed');
  const code = fresh();
  await shoot(page, code);
  const row = page.getByRole('list', { name: 'Not taken' }).getByRole('listitem');
  await expect(row).toContainText(`${code} was not taken`);
  await page.reload();
  await expect(row).toContainText('is closed');
  await state('open');
  await row.getByRole('button', { name: 'Try again' }).click();
  await expect(row).toHaveCount(0);
  await expect.poll(async () => (await linesOf(batch)).map((line) => line.scanned)).toEqual([code]);
});

test('a batch from its beginning by hand: what is asked is typed, a broken code is mended, the cost is shared', async ({
  page,
}) => {
  await signedIn(page);
  await page.goto('/batches');
  await page.getByRole('button', { name: 'New batch' }).click();
  const name = `Attic ${Date.now().toString(36)}`;
  await page.getByLabel('Name').fill(name);
  await page.getByLabel('All of it cost, EUR').fill('10.00');
  await page.getByRole('button', { name: 'Begin and scan' }).click();
  await expect(page.getByRole('heading', { name })).toBeVisible();
  await expect(field(page)).toBeFocused();
  await page.getByLabel('Ask for the condition').check();
  await page.getByLabel('Ask for the price').check();
  await expect(field(page)).toBeFocused();
  const code = fresh();
  await shoot(page, code);
  await expect(lastPiece(page)).toContainText('In which condition is it?');
  await shoot(page, '6');
  await expect(lastPiece(page)).toContainText('Good');
  await expect(lastPiece(page)).toContainText('What does it cost?');
  await shoot(page, '7.50');
  await expect(lastPiece(page)).toContainText('€7.50');
  const wrong = code.replace(/.$/, (digit) => String((Number(digit) + 1) % 10));
  await shoot(page, wrong);
  await expect(lastPiece(page)).toContainText('No code');
  const right = fresh();
  await page.getByLabel(`${wrong} is meant as`).fill(right);
  await page.getByRole('button', { name: 'Read as this' }).click();
  await expect(page.getByLabel(`${wrong} is meant as`)).toHaveCount(0);
  await page.getByRole('button', { name: 'Details and cost' }).click();
  await page.getByLabel('Shared out over the pieces').selectOption({ label: 'by hand, the rest by number' });
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel(code).fill('8.00');
  await page.getByRole('button', { name: 'Keep, and write the shares into the items' }).click();
  await expect(page.getByText('2 items have another cost now')).toBeVisible();
  const id = Number(/batches\/(\d+)/.exec(page.url())?.[1]);
  const costs = (await linesOf(id)).map((line) => line.item?.cost);
  expect(costs).toEqual([200, 800]);
  await page.getByRole('link', { name: 'Review as a table' }).click();
  await expect(page.getByRole('grid', { name: 'Inventory' })).toBeVisible();
  await expect(page.getByText('2 items', { exact: true })).toBeVisible();
});

test('a picture of a code is scanned like any other, and an offer becomes the price by a key', async ({ page }) => {
  const grade = 'new-open' as const;
  const batch = await newBatch({ settings: settingsWith({ grade }) });
  piles.push(batch);
  await signedIn(page);
  await page.goto(`/batches/${batch}`);
  await expect(field(page)).toBeFocused();
  const code = bookCode(170);
  const buffer = await bwip.toBuffer({ bcid: 'ean13', text: code, scale: 4, backgroundcolor: 'ffffff', padding: 10 });
  await page.getByLabel('A picture of a code').setInputFiles({ name: 'code.png', mimeType: 'image/png', buffer });
  await expect(lastPiece(page)).toContainText('New');
  await expect(page.getByRole('region', { name: 'Offered now' })).toBeVisible();
  await field(page).focus();
  await page.keyboard.press('Alt+u');
  await expect.poll(async () => (await linesOf(batch))[0]?.item?.price ?? null).not.toBeNull();
  const [line] = await linesOf(batch);
  expect(line).toMatchObject({ code, kind: 'item' });
  await expect(lastPiece(page)).toContainText('€');
});

test('labels are drawn before they are printed, a printer that is out is told, and a reminder waits under Attention', async ({
  page,
}) => {
  const batch = await newBatch();
  piles.push(batch);
  const line = await scan(batch, fresh());
  const id = line.item?.id ?? 0;
  const paper = (isOut: boolean) =>
    fetch(`${stack.markets}/printer/api/paper`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ isOut }),
    });
  await signedIn(page);
  await page.goto(`/batches/${batch}`);
  await page.getByRole('link', { name: 'Labels' }).click();
  await expect(page.getByRole('img', { name: 'Page 1' })).toBeVisible();
  await expect(page.getByText('1 label on 1 page')).toBeVisible();
  await paper(true);
  try {
    await page.getByRole('button', { name: 'Print', exact: true }).click();
    await expect(page.getByRole('region', { name: 'Printer' })).toContainText('Out of labels');
  } finally {
    await paper(false);
  }
  await expect(page.getByRole('region', { name: 'Printer' })).not.toContainText('Out of labels');
  const { item } = await sheet(id);
  const remindOn = new Date().toISOString().slice(0, 10);
  await call('PATCH', `/items/${id}`, { baseVersion: item.version, patch: { remindOn, remindOf: 'price it anew' } });
  await page.goto('/attention');
  const row = page.getByRole('listitem').filter({ hasText: item.sku });
  await expect(row).toContainText('price it anew');
  await row.getByRole('button', { name: 'Done' }).click();
  await expect(row).toHaveCount(0);
});

test('each kind of piece has a sound of its own, until sounds are switched off', async ({ page }) => {
  const batch = await newBatch({ settings: settingsWith({ grade: 'good', cost: 100 }) });
  piles.push(batch);
  await page.addInitScript(() => {
    const heard: number[] = [];
    Object.assign(window, { heard });
    // An instrument that writes down what it plays.
    class Written {
      state = 'running';
      currentTime = 0;
      destination = {};
      createOscillator() {
        const frequency = { value: 0 };
        return {
          frequency,
          type: 'sine',
          connect: (next: unknown) => next,
          start: () => heard.push(frequency.value),
          stop: () => undefined,
        };
      }
      createGain() {
        const gain = { setValueAtTime: () => undefined, exponentialRampToValueAtTime: () => undefined };
        return { gain, connect: (next: unknown) => next };
      }
    }
    Object.assign(window, { AudioContext: Written });
  });
  await signedIn(page);
  await page.goto(`/batches/${batch}`);
  await expect(field(page)).toBeFocused();
  const heard = () => page.evaluate(() => (window as unknown as { heard: number[] }).heard.splice(0).join());
  const first = fresh();
  const sounds: string[] = [];
  for (const [text, words] of [
    [first, 'Not found'],
    [fresh().replace(/.$/, (digit) => String((Number(digit) + 1) % 10)), 'No code'],
    [first, 'In stock already'],
    [commandCode({ do: 'quantity', units: 2 }), ''],
  ] as const) {
    await shoot(page, text);
    if (words) await expect(lastPiece(page)).toContainText(words);
    else await expect(page.getByText('The next scan counts 2')).toBeVisible();
    sounds.push(await heard());
  }
  expect(sounds.every((one) => one !== '')).toBe(true);
  expect(new Set(sounds).size).toBe(4);
  await page.getByRole('checkbox', { name: 'Sounds' }).uncheck();
  await field(page).focus();
  await shoot(page, fresh());
  await expect(lastPiece(page)).toContainText('Not found');
  expect(await heard()).toBe('');
});
