import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import sharp from 'sharp';

const files = 300;
const rounds = 3;

let blue = 0;
/** So many pictures of this round, each another one. */
async function pictures(folder, round) {
  const paths = [];
  blue += 25;
  for (let at = 0; at < files; at++) {
    const path = join(folder, `R${round}_${at}.jpg`);
    const background = { r: at % 256, g: (at * 7) % 256, b: blue % 256 };
    const create = { width: 1_200 + (at % 50), height: 900 + Math.floor(at / 50), channels: 3, background };
    await writeFile(path, await sharp({ create }).jpeg().toBuffer());
    paths.push(path);
  }
  return paths;
}

const watch = () => {
  window.tasks = [];
  new PerformanceObserver((list) => {
    for (const one of list.getEntries()) window.tasks.push(one.duration);
  }).observe({ entryTypes: ['longtask'] });
};
const still = (page) =>
  page.evaluate(async () => {
    for (let round = 0; round < 3; round++) {
      await new Promise((resolve) => requestIdleCallback(resolve, { timeout: 5_000 }));
      await new Promise((resolve) => setTimeout(resolve, 200));
    }
    window.tasks = [];
  });
const longest = (page) => page.evaluate(() => Math.max(0, ...window.tasks));

/** Lets the files fall on the page, as they come from a folder on the desktop: their bytes lie with the page before. */
async function letFall(page, paths) {
  await page.evaluate(() => {
    window.fallen = new DataTransfer();
  });
  for (const path of paths)
    await page.evaluate(
      ([name, bytes]) => {
        const whole = Uint8Array.from(atob(bytes), (one) => one.charCodeAt(0));
        window.fallen.items.add(new File([whole], name, { type: 'image/jpeg' }));
      },
      [basename(path), await readFile(path, 'base64')],
    );
  await still(page);
  await page.evaluate(() => {
    const place = document.querySelector('section[aria-label=Photos]');
    place.dispatchEvent(new DragEvent('drop', { bubbles: true, cancelable: true, dataTransfer: window.fallen }));
  });
}

/**
 * The longest tasks of the page, in milliseconds, from the moment in which 300 files fall on it, or are chosen, until the
 * last one is there.
 */
export async function dropping(context, base) {
  const folder = await mkdtemp(join(tmpdir(), 'netting-drop-'));
  const page = await context.newPage();
  try {
    await page.addInitScript(watch);
    const found = { fallen: 0, chosen: 0 };
    for (let round = 0; round < rounds; round++) {
      for (const way of ['fallen', 'chosen']) {
        const paths = await pictures(folder, `${way}${round}`);
        await page.goto(`${base}/photos`);
        await page.getByRole('region', { name: 'Causes' }).waitFor();
        if (way === 'fallen') await letFall(page, paths);
        else {
          await still(page);
          await page.getByLabel('Photo files for many items').setInputFiles(paths);
        }
        await page.getByText(`0 files tied to 0 items, ${files} to none`).waitFor({ timeout: 240_000 });
        found[way] = Math.max(found[way], await longest(page));
      }
    }
    return found;
  } finally {
    await page.close();
    await rm(folder, { recursive: true, force: true });
  }
}
