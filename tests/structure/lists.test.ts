import type { z } from 'zod';
import { endpoints } from '../../src/http/endpoints';

/** Lists by pages of which no file is asked for, and why. */
const without = [
  // Pictures on products: what was said of them goes by picture, in the file of the artwork.
  '/artworks/sights',
  // Has a report of its own.
  '/imports/{id}/rows',
  // Where one is among those that are looked through: no list.
  '/gatherings/{id}/sitting/{item}',
];

test('every list that comes by pages is there as a file as well', () => {
  const names = new Set<string>(endpoints.map((one) => `${one.method} ${one.path}`));
  const lists = endpoints
    .filter((one) => one.method === 'GET' && 'next' in ((one.answer as unknown as Partial<z.ZodObject>).shape ?? {}))
    .map((one) => one.path as string)
    .filter((path) => !without.includes(path));
  expect(lists.length).toBeGreaterThan(12);
  // Items are written out with the columns of one's choice.
  expect(lists.filter((path) => path !== '/items' && !names.has(`GET ${path}/file`))).toEqual([]);
});
