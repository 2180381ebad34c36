const rounds = 15;
const percentile = (values, share) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))] ?? 0;

/** From a key in a cell of the lots' table to the frame in which its sign is painted. */
const keyInCell = (page, sign) =>
  page.evaluate(
    (typed) =>
      new Promise((resolve, reject) => {
        const cell = document.querySelector('input[data-row="4"][data-column="comment"]');
        cell.focus();
        const began = performance.now();
        const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
        set.call(cell, `${cell.value}${typed}`);
        cell.dispatchEvent(new Event('input', { bubbles: true }));
        const wanted = cell.value;
        requestAnimationFrame(() =>
          setTimeout(() => {
            // The field is one that the page writes: what it did not take would not stand in it any more.
            if (cell.value === wanted) resolve(performance.now() - began);
            else reject(new Error('the sign was not taken'));
          }, 0),
        );
      }),
    sign,
  );

/** From a key that looks for lots to the frame in which the first of them is painted. */
const keyInSearch = (page, word) =>
  page.evaluate(
    (wanted) =>
      new Promise((resolve) => {
        const table = document.querySelector('[role=table]');
        const search = document.querySelector('input[type=search]');
        const began = performance.now();
        const first = () => table.querySelector('[aria-rowindex="2"]')?.textContent ?? '';
        const seen = new MutationObserver(() => {
          if (!first().includes(wanted)) return;
          seen.disconnect();
          requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - began), 0));
        });
        seen.observe(table, { childList: true, subtree: true, characterData: true });
        const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
        set.call(search, wanted);
        search.dispatchEvent(new Event('input', { bubbles: true }));
      }),
    word,
  );

/** From leaving a cell with another price to the frame in which the totals say so. */
const priceToTotal = (page, price) =>
  page.evaluate(
    (typed) =>
      new Promise((resolve) => {
        const totals = document.querySelector('[aria-label=Totals]');
        const before = totals.textContent;
        const cell = document.querySelector('input[data-row="2"][data-column="price"]');
        cell.focus();
        const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
        set.call(cell, typed);
        cell.dispatchEvent(new Event('input', { bubbles: true }));
        const began = performance.now();
        const seen = new MutationObserver(() => {
          if (totals.textContent === before) return;
          seen.disconnect();
          requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - began), 0));
        });
        seen.observe(totals, { childList: true, subtree: true, characterData: true });
        cell.blur();
      }),
    price,
  );

/** P13: the table of twenty thousand lots. */
export async function ofLots(context, base, limit) {
  const page = await context.newPage();
  const kits = await (await page.request.get(`${base}/api/v1/kits`)).json();
  const kit = kits.kits.find((one) => one.name === 'Twenty thousand lots');
  await page.goto(`${base}/kits/${kit.id}`);
  await page.locator('input[data-row="4"][data-column="comment"]').waitFor();
  const lots = await page.getByRole('table', { name: 'Lots' }).getAttribute('aria-rowcount');
  const keys = [];
  const searches = [];
  const totals = [];
  for (let round = 0; round < rounds; round++) {
    keys.push(await keyInCell(page, 'x'));
    totals.push(await priceToTotal(page, `${round + 1}.37`));
    searches.push(await keyInSearch(page, `part ${(round + 2) * 1_111}`));
    await page.getByRole('searchbox').fill('');
    await page.locator('input[data-row="4"][data-column="comment"]').waitFor();
  }
  await page.close();
  return [
    limit(`P13 key to painted, p95, ${Number(lots) - 1} lots`, percentile(keys, 0.95), 'ms', 100),
    limit('P13 key to found lots painted, p95', percentile(searches, 0.95), 'ms', 100),
    limit('P13 a price left to the totals painted, p95', percentile(totals, 0.95), 'ms', 200),
  ];
}
