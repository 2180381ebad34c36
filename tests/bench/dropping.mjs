import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';

const files = 300;
const rounds = 3;

/** So many pictures of this round, each another one. */
async function pictures(folder, round) {
  const paths = [];
  for (let at = 0; at < files; at++) {
    const path = join(folder, `R${round}_${at}.jpg`);
    const background = { r: at % 256, g: (at * 7) % 256, b: (round * 40) % 256 };
    const create = { width: 1_200 + (at % 50), height: 900 + Math.floor(at / 50), channels: 3, background };
    await writeFile(path, await sharp({ create }).jpeg().toBuffer());
    paths.push(path);
  }
  return paths;
}

/**
 * The longest tasks of the page, in milliseconds, from the choice of 300 files until the last one is there; one figure
 * for each round, the first as the page comes up.
 */
export async function dropping(page, base) {
  const folder = await mkdtemp(join(tmpdir(), 'netting-drop-'));
  try {
    await page.addInitScript(() => {
      window.tasks = [];
      new PerformanceObserver((list) => {
        for (const one of list.getEntries()) window.tasks.push(one.duration);
      }).observe({ entryTypes: ['longtask'] });
    });
    const longest = [];
    for (let round = 0; round < rounds; round++) {
      const paths = await pictures(folder, round);
      await page.goto(`${base}/photos`);
      await page.getByRole('region', { name: 'Causes' }).waitFor();
      await page.evaluate(
        () => new Promise((resolve) => requestIdleCallback(() => requestIdleCallback(resolve), { timeout: 5_000 })),
      );
      await page.evaluate(() => {
        window.tasks = [];
      });
      await page.getByLabel('Photo files for many items').setInputFiles(paths);
      await page.getByText(`0 files tied to 0 items, ${files} to none`).waitFor({ timeout: 240_000 });
      longest.push(await page.evaluate(() => Math.max(0, ...window.tasks)));
    }
    return longest;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
