import fc from 'fast-check';
import { fieldsFor } from '../field';
import type { Variation } from '../item';
import type { Json } from '../json';
import { sampleItem } from '../testing.test-data';
import {
  type Column,
  columnOf,
  guarded,
  isIdentity,
  lostFraction,
  placeOf,
  planRow,
  type RowInput,
  readKey,
  readPhotoRefs,
  recognise,
  repairCell,
  rowsOf,
  shapeOf,
  shownKey,
  signatureOf,
  type TableRecord,
  threeWay,
  unguarded,
} from '.';

const catalogue = fieldsFor();
const hallowick = { id: 3, name: 'Hallowick', currency: 'EUR', catalogue };
const column = (id: string): Column => {
  const found = columnOf(id, catalogue, [hallowick]);
  if (!found) throw new Error(`no column ${id}`);
  return found;
};
const evidence = { decimal: '.' as const, dayFirst: true, hasLostFractions: false };
const row = (values: string[], key: string, part: Partial<Variation> = {}): Variation => ({
  values,
  key,
  quantity: 2,
  on: true,
  sku: '',
  price: null,
  barcode: '',
  ...part,
});
const strap = sampleItem({
  id: 7,
  sku: 'ST-1',
  title: 'Strap',
  price: 2_900,
  axes: [{ name: 'Colour', values: ['black', 'tan'] }],
  variations: [row(['black'], 'a', { sku: 'ST-1-B' }), row(['tan'], 'b', { price: { kind: 'own', amount: 3_100 } })],
  quantity: 4,
});
const recordOf = (item = strap, title = 'Strap there'): TableRecord => ({
  item,
  listings: new Map([[3, { content: { title }, number: '101', link: 'http://h/101', state: 'live' }]]),
});

describe('what a spreadsheet would run', () => {
  test('is guarded, and every text reads back equal', () => {
    expect(['=1+1', '+49', '-cmd', '@sum', "'=x", '\t=1'].map(guarded)).toEqual([
      "'=1+1",
      "'+49",
      "'-cmd",
      "'@sum",
      "''=x",
      "'\t=1",
    ]);
    expect(['-12.50', 'plain', "it's", ''].map(guarded)).toEqual(['-12.50', 'plain', "it's", '']);
    const odd = fc.string({ unit: fc.constantFrom('=', '+', '-', '@', "'", '\t', '\r', '\n', 'a', '1', '.') });
    fc.assert(fc.property(fc.oneof(odd, fc.string()), (text) => unguarded(guarded(text)) === text));
    fc.assert(fc.property(odd, (text) => !/^[=+@\t\r\n]/.test(guarded(text))));
  });
});

describe('columns', () => {
  test('have names that lead back to their places', () => {
    expect(placeOf('on.3.title')).toEqual({ of: 'listing', account: 3, field: 'title' });
    expect(placeOf('on.3.remote.number')).toEqual({ of: 'remote', account: 3, what: 'number' });
    expect(placeOf('attributes.Colour')).toEqual({ of: 'item', field: 'attributes.Colour' });
    expect(placeOf('on.x.title')).toBeNull();
    expect(column('on.3.title').label).toBe('Title · Hallowick');
    expect(columnOf('on.9.title', catalogue, [hallowick])).toBeUndefined();
    expect(columnOf('nothing', catalogue, [hallowick])).toBeUndefined();
  });

  test('an item is a row, and each of its combinations one of its own', () => {
    const columns = ['row.item', 'row.variation', 'row.key', 'sku', 'title', 'price', 'quantity', 'on.3.title'].map(
      column,
    );
    expect(rowsOf(recordOf(), columns).map((one) => [one.combination, ...one.cells])).toEqual([
      [null, '7', '', '', 'ST-1', 'Strap', '29.00', '4', 'Strap there'],
      ['a', '7', 'black', 'v-a', 'ST-1-B', '', '', '2', ''],
      ['b', '7', 'tan', 'v-b', '', '', '31.00', '2', ''],
    ]);
  });
});

test('keys of combinations are no numbers to a spreadsheet, and read back', () => {
  for (const key of ['004512345678', '12345678e123', 'f3a7de3b8f7d']) {
    expect(Number(shownKey(key))).toBeNaN();
    expect([shownKey(key), key, ` ${shownKey(key)}`].map(readKey)).toEqual([key, key, key]);
  }
});

describe('columns of a file are recognised', () => {
  const columns = ['row.item', 'sku', 'title', 'price', 'quantity', 'barcode', 'photos', 'on.3.title', 'cost'].map(
    column,
  );
  const tied = (headers: string[], samples: string[][] = [], remembered = {}) =>
    recognise(headers, samples, columns, remembered).map((one) => one.column);

  test('by name, by what others call them, by what stands in them, whatever their order', () => {
    expect(tied(['Qty', 'Title · Hallowick', 'PRICE (EUR)', 'Lagernummer', 'row.item', 'Colour of the sky'])).toEqual([
      'quantity',
      'on.3.title',
      'price',
      'sku',
      'row.item',
      null,
    ]);
    expect(
      tied(
        ['X1', 'X2'],
        [
          ['4006381333931', '9783161484100'],
          ['http://a/b.jpg', 'https://c/d.png'],
        ],
      ),
    ).toEqual(['barcode', 'photos']);
  });

  test('each once, the surest first; what was decided before holds again', () => {
    expect(tied(['Name', 'Title'])).toEqual([null, 'title']);
    expect(tied(['Name', 'EK'], [], { name: 'title', ek: null })).toEqual(['title', null]);
    expect(signatureOf(['Título', 'sku '])).toBe(signatureOf(['SKU', 'titulo']));
  });
});

describe('what a spreadsheet did is repaired', () => {
  const barcode = column('barcode');
  test.each([
    ['9.78316E+12', { exported: '9783161484100' }, '9783161484100'],
    ['9,78316E+12', { now: '9783161484100' }, '9783161484100'],
    // The first twelve digits are known: only one check digit fits.
    ['9.78316148410E+12', {}, '9783161484100'],
    ['36000291452', { exported: '036000291452' }, '036000291452'],
    ['4006381333931.0', { now: '4006381333931' }, '4006381333931'],
  ])('%s is %j, so %s', (text, known, wanted) => {
    expect(repairCell(barcode, text, { ...evidence, ...known })).toMatchObject({
      text: wanted,
      said: expect.any(String),
    });
  });

  test('a number that more than one barcode fits is refused, not guessed', () => {
    expect(repairCell(barcode, '9.78E+12', evidence)).toHaveProperty('problem');
    expect(repairCell(barcode, '9.78E+12', { ...evidence, exported: '4006381333931' })).toHaveProperty('problem');
  });

  test.each([
    ['boughtOn', '45983', '2025-11-22'],
    ['boughtOn', '22.11.2025', '2025-11-22'],
    ['boughtOn', '2025-11-22 00:00:00', '2025-11-22'],
    ['price', '1 234,50', '1234.50'],
    ['price', '12,90', '12.90'],
  ])('%s: %s is %s', (id, text, wanted) => {
    expect(repairCell(column(id), text, { ...evidence, decimal: ',' })).toMatchObject({ text: wanted });
  });

  test('a mark of thousands is told from a sign before the fraction by the column', () => {
    expect(repairCell(column('price'), '1.234', { ...evidence, decimal: ',' })).toEqual({ text: '1234' });
    expect(repairCell(column('price'), '1,234.50', evidence)).toEqual({ text: '1234.50' });
    const lost = [
      { text: '1290', exported: '12.90' },
      { text: '350', exported: '3.50' },
      { text: '7', exported: '7' },
    ];
    expect(lostFraction('1290', '12.90')).toBe(true);
    const shape = shapeOf(column('price'), lost);
    expect(shape.hasLostFractions).toBe(true);
    expect(repairCell(column('price'), '1290', { ...shape, exported: '12.90' })).toMatchObject({ text: '12.90' });
    // One alone may be meant.
    expect(shapeOf(column('price'), lost.slice(0, 1)).hasLostFractions).toBe(false);
    expect(shapeOf(column('price'), [{ text: '12,90' }, { text: '1.234,00' }]).decimal).toBe(',');
    expect(shapeOf(column('boughtOn'), [{ text: '11/22/2025' }]).dayFirst).toBe(false);
  });

  test('a formula in the place of its value is refused, words that begin like one are not', () => {
    expect(repairCell(column('price'), '=B2*1.1', evidence)).toHaveProperty('problem');
    expect(repairCell(column('title'), '=SUM(A1:A3)', evidence)).toHaveProperty('problem');
    for (const words of ['= as new =', '=$ cheap', '=)'])
      expect(repairCell(column('title'), words, evidence)).toEqual({ text: words });
    expect(repairCell(column('title'), '=$A$1', evidence)).toHaveProperty('problem');
  });

  test('nothing that is undamaged is changed, whatever stands there', () => {
    const ids = ['sku', 'title', 'price', 'quantity', 'barcode', 'boughtOn', 'keywords', 'weightGrams', 'condition'];
    const values: Record<string, fc.Arbitrary<Json>> = {
      sku: fc.stringMatching(/^[A-Za-z0-9][A-Za-z0-9.\-/]{0,20}$/),
      title: fc.string({ maxLength: 40 }).filter((text) => !text.startsWith('=')),
      price: fc.integer({ min: 0, max: 10_000_000 }),
      quantity: fc.integer({ min: 0, max: 999_999 }),
      barcode: fc.stringMatching(/^\d{0,14}$/),
      boughtOn: fc
        .date({ min: new Date('1990-01-01'), max: new Date('2040-01-01'), noInvalidDate: true })
        .map((one) => one.toISOString().slice(0, 10)),
      // What begins like a formula is told from one only by what was written out.
      keywords: fc.array(
        fc.string({ minLength: 1, maxLength: 10 }).filter((text) => !text.trimStart().startsWith('=')),
        { maxLength: 4 },
      ),
      weightGrams: fc.integer({ min: 0, max: 40_000 }),
      condition: fc.constantFrom('new', 'good', null),
    };
    for (const id of ids) {
      const one = column(id);
      const { field } = one;
      if (!field) throw new Error(id);
      fc.assert(
        fc.property(
          values[id] ?? fc.constant(null),
          fc.boolean(),
          fc.option(fc.string(), { nil: undefined }),
          (value, lost, other) => {
            const text = field.show(value, one);
            const shape = { ...evidence, hasLostFractions: lost };
            const repaired = repairCell(one, text, { ...shape, exported: isIdentity(one) ? undefined : other });
            expect('text' in repaired && field.read(repaired.text, one)).toEqual(field.read(text, one));
            expect(repairCell(one, text, { ...shape, exported: text })).toEqual({ text });
          },
        ),
        { numRuns: 60 },
      );
    }
  });
});

describe('three ways', () => {
  const title = column('title').field;
  if (!title) throw new Error('no title');
  test('what was changed in the file alone is applied, here alone kept, on both sides decided', () => {
    expect(threeWay(title, 'a', 'a', 'b')).toEqual({ kind: 'apply', to: 'b' });
    expect(threeWay(title, 'a', 'b', 'a')).toEqual({ kind: 'kept' });
    expect(threeWay(title, 'a', 'b', 'b')).toEqual({ kind: 'same' });
    expect(threeWay(title, 'a', 'b', 'c')).toEqual({ kind: 'conflict', exported: 'a', now: 'b', to: 'c' });
    expect(threeWay(title, undefined, 'b', 'c')).toEqual({ kind: 'apply', to: 'c' });
  });

  test('a file that nothing was changed in changes nothing, whatever happened since', () => {
    const word = fc.constantFrom('a', 'b', 'c');
    fc.assert(fc.property(word, word, (exported, now) => threeWay(title, exported, now, exported).kind !== 'apply'));
    fc.assert(
      fc.property(word, word, word, (exported, now, file) => {
        const verdict = threeWay(title, exported, now, file);
        if (verdict.kind === 'apply') expect(exported).toBe(now);
      }),
    );
  });
});

describe('a row', () => {
  const ids = ['row.item', 'row.variation', 'sku', 'title', 'price', 'quantity', 'barcode', 'on.3.title'];
  const columns = ids.map(column);
  const plan = (cells: Record<string, string>, part: Partial<RowInput> = {}) =>
    planRow({
      columns,
      cells: ids.map((id) => cells[id] ?? ''),
      record: recordOf(),
      combination: null,
      options: { units: 'set', empty: 'keep' },
      ...part,
    });

  test('says what becomes different, also for one account alone', () => {
    expect(plan({ title: 'Strap', price: '31,50', 'on.3.title': 'Wide strap' })).toEqual({
      kind: 'change',
      cells: [
        { column: 'price', now: '29.00', file: '31,50', from: 2_900, to: 3_150, isConflict: false },
        {
          column: 'on.3.title',
          now: 'Strap there',
          file: 'Wide strap',
          from: 'Strap there',
          to: 'Wide strap',
          isConflict: false,
        },
      ],
    });
    expect(plan({ title: 'Strap' })).toEqual({ kind: 'same', kept: 0 });
  });

  test('of a combination is about that one', () => {
    const combination = strap.variations[1] ?? null;
    expect(plan({ sku: 'ST-1-T', price: '+2.00', quantity: '5', title: 'ignored' }, { combination })).toMatchObject({
      kind: 'change',
      cells: [
        { column: 'sku', to: 'ST-1-T' },
        { column: 'price', to: { kind: 'difference', amount: 200 } },
        { column: 'quantity', to: 5 },
      ],
    });
  });

  test('an old file undoes no newer sale; units that are added are said as what results', () => {
    const film = recordOf(sampleItem({ quantity: 3 }));
    const exported = { quantity: '5' };
    expect(plan({ quantity: '5' }, { record: film, exported })).toEqual({ kind: 'same', kept: 1 });
    expect(plan({ quantity: '8' }, { record: film, exported })).toMatchObject({ kind: 'conflict' });
    const add = { units: 'add', empty: 'keep' } as const;
    expect(plan({ quantity: '8' }, { record: film, exported, options: add })).toMatchObject({
      cells: [{ now: '3', file: '8', to: 11, more: 8 }],
    });
  });

  test('an empty cell is nothing said, unless something was written out there', () => {
    expect(plan({ title: '' })).toEqual({ kind: 'same', kept: 0 });
    expect(plan({ title: '' }, { exported: { title: 'Strap' } })).toMatchObject({
      cells: [{ column: 'title', to: '' }],
    });
    expect(plan({}, { options: { units: 'set', empty: 'clear' } })).toMatchObject({ kind: 'refused', column: 'sku' });
  });

  test('with a cell that cannot be read is refused whole, with the cell and why', () => {
    expect(plan({ title: 'New', price: 'cheap' })).toEqual({
      kind: 'refused',
      why: 'This is not an amount',
      column: 'price',
    });
  });

  test('that is no item yet is a new one with what it says', () => {
    expect(plan({ title: 'New strap', price: '12', quantity: '' }, { record: null })).toMatchObject({
      kind: 'new',
      cells: [
        { column: 'title', to: 'New strap' },
        { column: 'price', to: 1_200 },
      ],
    });
    expect(plan({}, { record: null })).toMatchObject({ kind: 'refused' });
  });
});

test('a cell may name photos by number and by address side by side; a name may hold blanks', () => {
  const hash = 'a'.repeat(64);
  expect(readPhotoRefs(`${hash} https://shop.example/1.jpg`)).toEqual({ refs: [hash, 'https://shop.example/1.jpg'] });
  expect(readPhotoRefs('front side.jpg; back.png')).toEqual({ refs: ['front side.jpg', 'back.png'] });
});

test('a column that says as much for either sign is read with the point', () => {
  const price = column('price');
  expect(shapeOf(price, [{ text: '1,5' }, { text: '1.5' }]).decimal).toBe('.');
  expect(shapeOf(price, [{ text: '1,5' }, { text: '2,5' }, { text: '1.5' }]).decimal).toBe(',');
});
