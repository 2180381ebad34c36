import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { pages, partsOfPages } from '../../src/ui/frame/place-list';

const shop = join(__dirname, '..', '..', 'src', 'app', '(shop)');
/** Pages that are of nothing in particular, by their addresses. */
const addresses = readdirSync(shop, { recursive: true, encoding: 'utf8' })
  .filter((name) => /(^|\/)page\.tsx$/.test(name) && !name.includes('['))
  .map((name) => `/${name.replace(/\/?page\.tsx$/, '')}`);
/** One comes there with something: chosen items, or nothing said yet. */
const withSomething = ['/workbench', '/publish', '/items/new'];

test('every page that is not of one thing is in the launcher, and nothing else', () => {
  expect(addresses.length).toBeGreaterThan(25);
  expect(pages.map((one) => one.href).sort()).toEqual(addresses.filter((one) => !withSomething.includes(one)).sort());
});

test('what is found by typing is a part of one of these pages', () => {
  for (const { href } of partsOfPages) expect(addresses).toContain(href.replace(/[?#].*/, ''));
});
