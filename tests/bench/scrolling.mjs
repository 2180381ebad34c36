/** The longest task while the wheel turns over what scrolls in the middle of the page, in milliseconds; it has to have moved. */
export async function scrolling(page, by) {
  const place = () =>
    page.evaluate(() =>
      Math.max(...[...document.querySelectorAll('[role=grid], [role=grid] *, html')].map((one) => one.scrollTop)),
    );
  const before = await place();
  await page.evaluate(() => {
    window.longest = 0;
    new PerformanceObserver((list) => {
      for (const one of list.getEntries()) window.longest = Math.max(window.longest, one.duration);
    }).observe({ entryTypes: ['longtask'] });
  });
  await page.mouse.move(640, 400);
  for (let turn = 0; turn < 60; turn++) {
    await page.mouse.wheel(0, by);
    await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))));
  }
  const moved = (await place()) - before;
  if (moved < 20 * by) throw new Error(`the page moved by ${moved} only: nothing was measured`);
  return page.evaluate(() => window.longest);
}
