import { expect, test } from '@playwright/test';
import { publishItems, readyFilm, readyItem, stateOn, strapOfTwo } from '../support/items';
import { accountOf, marketListings, until } from '../support/stack';
import { signedIn } from './steps';

const sentence = 'Returns within 30 days.';

test('unlike items: prices, tags, a sentence on one marketplace and dearer large ones, seen before, sent, taken back', async ({
  page,
}) => {
  const oakhand = await accountOf('Oakhand');
  const [film, band] = await Promise.all([readyFilm(3), readyItem(strapOfTwo)]);
  await publishItems([film.id, band.id], [oakhand]);
  for (const { id } of [film, band])
    await until(
      () => stateOn(id, oakhand),
      (state) => state === 'live',
    );
  const textThere = async (sku: string) =>
    JSON.stringify((await marketListings('oakhand')).find((one) => one.summary.reference.startsWith(sku)) ?? '');

  await signedIn(page);
  await page.goto(`/workbench?ids=${film.id},${band.id}`);
  await page.getByPlaceholder('-5').fill('-5');
  await page.getByLabel('Ending').selectOption({ label: '.90' });
  const table = page.getByRole('region', { name: 'Before and after' });
  await expect(table.getByText('18.90')).toBeVisible();

  await page.getByRole('button', { name: 'Add a step' }).click();
  await page.getByLabel('Field of step 2').selectOption({ label: 'Keywords' });
  await page.getByLabel('Entries').fill('autumn, harbour');
  await expect(table.getByText('autumn, harbour').first()).toBeVisible();

  await page.getByRole('button', { name: 'Add a step' }).click();
  await page.getByLabel('Where step 3 works').selectOption({ label: 'on chosen accounts' });
  await page.getByLabel('Field of step 3').selectOption({ label: 'Description' });
  await page.getByLabel('Text').fill(sentence);
  // A step that is not whole yet holds everything up, and says nothing before something was typed wrong.
  await expect(page.getByRole('button', { name: /^Save and send/ })).toBeDisabled();
  await page.getByRole('group', { name: 'Accounts of step 3' }).getByRole('checkbox', { name: 'Oakhand' }).check();
  await expect(table.getByText('Description, Oakhand')).toBeVisible();
  await expect(table.locator('ins').getByText(sentence).first()).toBeVisible();

  await page.getByRole('button', { name: 'Add a step' }).click();
  await page.getByLabel('Where step 4 works').selectOption({ label: 'of combinations' });
  await page.getByLabel('Field of step 4').selectOption({ label: 'Price' });
  await page.getByLabel('Which, or all').fill('Size: Large');
  await page.getByLabel('Amount').fill('+3');
  await expect(table.getByText('+3.00')).toBeVisible();

  // A formula that cannot be read is said at its step; without its tick the step is left out.
  await page.getByRole('button', { name: 'Add a step' }).click();
  await page.getByLabel('Field of step 5').selectOption({ label: 'Cost' });
  await page.getByLabel('Step 5', { exact: true }).selectOption({ label: 'Compute by a formula' });
  await page.getByLabel('Formula').fill('cost * prise');
  await expect(page.getByText('“prise” is not known')).toBeVisible();
  await page.getByLabel('Carry out step 5').uncheck();

  // One line is taken out, and taken along again.
  await expect(page.getByText('2 of 2 items change')).toBeVisible();
  await page.getByRole('checkbox', { name: `Change ${band.sku}` }).uncheck();
  await expect(page.getByText('1 of 1 items change')).toBeVisible();
  await page.getByRole('checkbox', { name: `Change ${band.sku}` }).check();
  await expect(page.getByText('2 of 2 items change')).toBeVisible();
  await page.getByRole('button', { name: /^Save and send \d+ listings/ }).click();
  await expect(page.getByRole('heading', { name: '2 items are changed' })).toBeVisible();
  for (const { sku } of [film, band])
    await until(
      () => textThere(sku),
      (text) => text.includes(sentence),
    );

  await page.getByRole('button', { name: 'Take the whole change back' }).click();
  await expect(page.getByRole('heading', { name: '2 items are as they were' })).toBeVisible();
  for (const { sku } of [film, band])
    await until(
      () => textThere(sku),
      (text) => text.length > 10 && !text.includes(sentence),
    );
});
