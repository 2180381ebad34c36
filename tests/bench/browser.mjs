import { openChromium } from '../support/chromium.mjs';
import { dropping } from './dropping.mjs';
import { ofGallery } from './gallery.mjs';
import { ofLots } from './lots.mjs';
import { scrolling } from './scrolling.mjs';

/** Who may come in to the demo shop. */
const owner = { email: 'owner@grainhouse.example', password: 'harbour-light-35' };
const rounds = 7;
const kilo = 1_000;
const settleMs = 3_000;
const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
const percentile = (values, share) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))] ?? 0;
const limit = (id, value, unit, goal) => ({
  id,
  value,
  unit,
  baseline: null,
  ratio: null,
  goal: `≤ ${goal} ${unit}`,
  ok: value <= goal,
});

/** Script that a page loads until nothing more comes, as it goes over the wire. */
async function scriptOf(context, base, path) {
  const page = await context.newPage();
  const session = await context.newCDPSession(page);
  await session.send('Network.enable');
  await session.send('Network.setCacheDisabled', { cacheDisabled: true });
  const scripts = new Set();
  let bytes = 0;
  session.on('Network.responseReceived', ({ requestId, type }) => type === 'Script' && scripts.add(requestId));
  session.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    if (scripts.has(requestId)) bytes += encodedDataLength;
  });
  await page.goto(`${base}${path}`, { waitUntil: 'load' });
  // What a page loads after it has woken up counts, too.
  await page.waitForTimeout(settleMs);
  await page.close();
  return bytes / kilo;
}

/** Words that find other rows each, so that it is seen when they are painted. */
const words = ['tess', 'bras', 'orva', 'quil'];

/** From the last key of a word to the frame in which its rows are painted, in milliseconds. */
const keyToPaint = (page, word) =>
  page.evaluate(
    (wanted) =>
      new Promise((resolve) => {
        const grid = document.querySelector('[role=grid]');
        const search = document.querySelector('input[type=search]');
        const before = grid.textContent;
        const began = performance.now();
        const seen = new MutationObserver(() => {
          // The rows of this very word: a time that grows old changes the text, too.
          const first = grid.querySelector('[aria-rowindex="2"]')?.textContent ?? '';
          if (grid.textContent === before || !first.toLowerCase().includes(wanted)) return;
          seen.disconnect();
          requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - began), 0));
        });
        seen.observe(grid, { childList: true, subtree: true, characterData: true });
        const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
        set.call(search, wanted);
        search.dispatchEvent(new Event('input', { bubbles: true }));
      }),
    word,
  );

/** The largest paint of the inventory, opened anew. */
async function largestPaint(context, base) {
  const page = await context.newPage();
  await page.goto(`${base}/`);
  await page.getByRole('grid', { name: 'Inventory' }).waitFor();
  const at = await page.evaluate(
    () =>
      new Promise((resolve) => {
        new PerformanceObserver((list) => resolve(list.getEntries().at(-1)?.startTime ?? 0)).observe({
          type: 'largest-contentful-paint',
          buffered: true,
        });
      }),
  );
  await page.close();
  return at;
}

/** P9: the inventory in the browser. */
export async function inBrowser({ settings, size, only }) {
  const base = `http://127.0.0.1:${settings.port}`;
  const browser = await openChromium();
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    await page.goto(`${base}/sign-in`);
    await page.getByLabel('E-mail address').fill(owner.email);
    await page.getByLabel('Password').fill(owner.password);
    await page.keyboard.press('Enter');
    await page.getByRole('grid', { name: 'Inventory' }).waitFor();
    const lots = [
      ...(!only || only.includes('P13') ? await ofLots(context, base, limit) : []),
      ...(!only || only.includes('P14') ? await ofGallery(context, base, limit) : []),
    ];
    if (only && !only.includes('P9')) return lots;
    const keys = [];
    const scrolls = [];
    for (let round = 0; round < rounds; round++) {
      await page.goto(`${base}/`);
      await page.getByRole('grid', { name: 'Inventory' }).waitFor();
      scrolls.push(await scrolling(page, 600));
      await page.goto(`${base}/`);
      await page.getByRole('grid', { name: 'Inventory' }).waitFor();
      for (const word of words) keys.push(await keyToPaint(page, word));
    }
    const paints = [];
    for (let round = 0; round < 5; round++) paints.push(await largestPaint(context, base));
    const figures = [
      ...lots,
      limit(`P9 key to painted filter, p95, ${size} items`, percentile(keys, 0.95), 'ms', 150),
      limit(`P9 key to painted filter, median`, median(keys), 'ms', 150),
      limit('P9 longest task while scrolling', percentile(scrolls, 0.5), 'ms', 50),
      limit('P9 largest paint of the inventory', median(paints), 'ms', 1_000),
    ];
    const tasks = await dropping(context, base);
    figures.push(
      limit('P11 longest task while 300 files are dropped', tasks.fallen, 'ms', 60),
      limit('P11 longest task while 300 files are chosen', tasks.chosen, 'ms', 60),
    );
    for (const [name, path] of [
      ['inventory', '/'],
      ['workbench', '/workbench?ids=1,2,3'],
      ['item', '/items/1'],
      ['routines', '/routines'],
      ['marketplaces', '/marketplaces'],
    ])
      figures.push(limit(`P9 script of the page ${name}`, await scriptOf(context, base, path), 'kB', 250));
    return figures;
  } finally {
    await browser.close();
  }
}
