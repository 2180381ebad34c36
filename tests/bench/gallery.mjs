import { scrolling } from './scrolling.mjs';

/** P14 in the browser: the longest task while the wheel turns over the gallery of sixty pictures on twelve products. */
export async function ofGallery(context, base, limit) {
  const page = await context.newPage();
  const tasks = [];
  for (let round = 0; round < 5; round++) {
    await page.goto(`${base}/artwork/gallery`);
    await page.getByText('of 720 looked over').waitFor();
    tasks.push(await scrolling(page, 300));
  }
  await page.close();
  const middle = [...tasks].sort((a, b) => a - b)[2] ?? 0;
  return [limit('P14 longest task while scrolling the gallery of 60 × 12', middle, 'ms', 60)];
}
