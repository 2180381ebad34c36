import type { Filter } from './filter';
import { mentions, mentionsNet } from './mentions';

const brand: Filter = { field: 'brand', op: 'is', value: 'Brask' };

test('a field is found however deep it stands', () => {
  expect(mentions({ all: [{ any: [brand] }] }, 'brand')).toBe(true);
  expect(mentions({ all: [{ any: [brand] }] }, 'title')).toBe(false);
});

test('only what asks for a net hangs on nets', () => {
  expect(mentionsNet({ any: [brand, { listing: { account: 1, netBelow: 500 } }] })).toBe(true);
  expect(mentionsNet({ all: [brand, { listing: { account: 1, state: 'live' } }] })).toBe(false);
});
