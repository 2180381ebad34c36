import fc from 'fast-check';
import type { Content } from '../core/listing';
import * as hallowick from './hallowick/wire';
import * as oakhand from './oakhand/wire';
import * as pippet from './pippet/wire';

const base: Content = {
  sku: 'C1-1',
  title: 'Brask K-2',
  description: 'Checked.',
  brand: 'Brask',
  category: '11',
  condition: 'used',
  price: 14_900,
  quantity: 3,
  weightGrams: 900,
  photos: ['a'.repeat(64)],
  'attr.colour': 'Black',
};

test('Hallowick: decimal prices, pounds and inches, nested terms', () => {
  const wire = hallowick.toWire(
    {
      ...base,
      size: [190, 130, 120],
      conditionNote: 'Light brassing.',
      'extra.returns': 'none',
      'extra.postage': 'free',
    },
    ['p1'],
  );
  expect(wire).toMatchObject({
    reference: 'C1-1',
    heading: 'Brask K-2',
    price: { value: '149.00', currency: 'EUR' },
    stock: 3,
    pictures: ['p1'],
    condition: { grade: 'used', note: 'Light brassing.' },
    details: { colour: 'Black' },
    terms: { returns: 'none', postage: 'free', collection: false },
  });
  expect(wire.parcel).toEqual({ pounds: 1.99, inches: [7.5, 5.2, 4.8] });
});

test('Pippet: flat, cents, a weight class, and the price drops said every time', () => {
  expect(pippet.toWire(base, ['p1'])).toMatchObject({
    name: 'Brask K-2',
    cents: 14_900,
    weightClass: 'light',
    priceDrops: false,
    photos: ['p1'],
  });
  expect([200, 250, 251, 5_000, 5_001, 90_000].map(pippet.weightClass)).toEqual([
    'feather',
    'feather',
    'light',
    'solid',
    'heavy',
    'heavy',
  ]);
});

test('Oakhand: a decimal number, grams and centimetres, its own fields at the top', () => {
  const wire = oakhand.toWire(
    { ...base, size: [195, 130, 120], 'extra.decade': '1970s', 'extra.materials': ['brass'] },
    [],
  );
  expect(wire).toMatchObject({
    name: 'Brask K-2',
    price: 149,
    amount: 3,
    grams: 900,
    centimetres: [19.5, 13, 12],
    decade: '1970s',
    materials: ['brass'],
  });
});

const manners = [
  ['Hallowick', hallowick],
  ['Pippet', pippet],
  ['Oakhand', oakhand],
] as const;

test.each(manners)('%s: what is sent and shown again says the same', (_name, manner) => {
  fc.assert(
    fc.property(
      fc.string({ minLength: 1 }),
      fc.integer({ min: 1, max: 1e7 }),
      fc.integer({ min: 1, max: 900 }),
      (title, price, quantity) => {
        const back = manner.fromWire(manner.toWire({ ...base, title, price, quantity }, []));
        const wanted = manner === pippet ? 1 : quantity;
        return (
          back.title === title &&
          back.price === price &&
          back.quantity === wanted &&
          back['attr.colour'] === 'Black' &&
          back.sku === 'C1-1'
        );
      },
    ),
  );
});

test.each(manners)('%s: every field that it shows back has a place in which it is sent', (_name, manner) => {
  const fields = Object.keys(manner.fromWire(manner.toWire({ ...base, tags: ['a'], 'extra.offers': true }, [])));
  for (const field of fields) expect({ field, wire: manner.wireFields([field]) }).not.toEqual({ field, wire: [] });
});

test('a change of the price is sent as the price and nothing else', () => {
  expect(hallowick.wireFields(['price'])).toEqual(['price']);
  expect(pippet.wireFields(['price'])).toEqual(['cents']);
  expect(oakhand.wireFields(['price', 'attr.colour', 'attr.film_format'])).toEqual(['price', 'traits']);
});

test('what a stranger sends is not trusted: odd types become nothing', () => {
  for (const [, manner] of manners) {
    const content = manner.fromWire({
      price: { value: 'free' },
      traits: 'none',
      details: [1, 2],
      cents: null,
      tags: [],
    });
    expect(content.tags).toBeUndefined();
    expect(Object.keys(content).some((field) => field.startsWith('attr.'))).toBe(false);
  }
});
