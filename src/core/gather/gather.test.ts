import fc from 'fast-check';
import type { Content, Overrides } from '../listing';
import { sampleAccount, sampleRules } from '../testing.test-data';
import { gradesOf, joinSources, keptAsShown, type Source, type Told, toldBy, withMoreAttributes } from '.';

const told = (part: Partial<Told> = {}): Told => ({ fields: {}, grades: [], quantity: 1, isCapped: false, ...part });
const source = (id: string, part: Partial<Told> = {}, photos: Source['photos'] = []): Source => ({
  id,
  told: told(part),
  photos,
});
const photo = (hash: string, side: number) => ({ hash: hash.repeat(64), width: side, height: side });

describe('what a listing tells', () => {
  test('fields as an item has them; what cannot be one is left out', () => {
    const account = sampleAccount(sampleRules(), { houseTag: 'quay' });
    const { fields, quantity, isCapped } = toldBy(
      {
        title: 'Brask K-2 camera',
        brand: 'none',
        description: 'First line.\n\nSecond & last.\nOf two lines.',
        category: '11',
        condition: 'used',
        price: 14_900,
        quantity: 1,
        tags: ['camera', 'Quay'],
        sku: 'with blanks in it',
        'attr.film_format': '35 mm',
        weightGrams: 900,
      },
      account,
    );
    expect(fields).toMatchObject({
      title: 'Brask K-2 camera',
      description: '<p>First line.</p><p>Second &amp; last.<br>Of two lines.</p>',
      price: 14_900,
      keywords: ['camera'],
      weightGrams: 900,
      condition: 'poor',
    });
    expect(fields).not.toHaveProperty('brand');
    expect(fields).not.toHaveProperty('sku');
    expect([quantity, isCapped]).toEqual([1, true]);
  });

  test('where there is no title the first line of the text is one, else what buyers see', () => {
    const rules = sampleRules({ title: null, description: { format: 'plain', min: 0, max: 900, titleFirst: true } });
    expect(toldBy({ description: 'A lantern\nOf brass.' }, sampleAccount(rules)).fields).toEqual({
      title: 'A lantern',
      description: '<p>Of brass.</p>',
    });
    expect(toldBy({ product: 'P9' }, sampleAccount(), 'Saltmark Harbour 200').fields.title).toBe(
      'Saltmark Harbour 200',
    );
  });

  test('a condition there may be several of ours; what an account calls them otherwise holds', () => {
    const account = sampleAccount();
    expect(gradesOf('new', account)).toEqual(['new', 'new-open']);
    expect(gradesOf('unheard of', account)).toEqual([]);
    const own = sampleAccount(sampleRules(), { maps: { condition: { poor: 'new' } } });
    expect(gradesOf('new', own)).toEqual(['new', 'new-open', 'poor']);
  });

  test('combinations come with their units and prices', () => {
    const { fields } = toldBy(
      {
        price: 3_900,
        variations: {
          axes: [{ name: 'Colour', values: ['Black', 'Tan'] }],
          rows: [
            { values: ['Black'], sku: 'S-B', quantity: 2, price: 3_900 },
            { values: ['Tan'], sku: '??', quantity: 0, price: null },
          ],
        },
      },
      sampleAccount(),
    );
    expect(fields.axes).toEqual([{ name: 'Colour', values: ['Black', 'Tan'] }]);
    expect(fields.variations?.map(({ sku, quantity, price }) => [sku, quantity, price])).toEqual([
      ['S-B', 2, { kind: 'own', amount: 3_900 }],
      ['', 0, null],
    ]);
  });
});

describe('one item of several listings', () => {
  const one = source(
    'One',
    {
      fields: { title: 'Lantern', description: '<p>Short.</p>', price: 1_000, attributes: { Colour: 'Brass' } },
      grades: ['excellent', 'very-good'],
    },
    [photo('a', 600)],
  );
  const two = source(
    'Two',
    {
      fields: {
        title: 'Lantern of brass',
        description: '<p>A longer text.</p>',
        price: 1_100,
        attributes: { 'Main colour': 'Gold', Height: '20 cm' },
      },
      grades: ['very-good', 'good'],
    },
    [photo('b', 900), photo('c', 900)],
  );

  test('the one that says most wins, field by field, and it is said who', () => {
    const joined = joinSources([one, two]);
    expect(joined.fields).toMatchObject({
      title: 'Lantern of brass',
      description: '<p>A longer text.</p>',
      price: 1_000,
    });
    // A property under another name for the same is not said twice.
    expect(joined.fields.attributes).toEqual({ 'Main colour': 'Gold', Height: '20 cm' });
    // The grade that both may mean.
    expect(joined.fields.condition).toBe('very-good');
    expect(joined.photos).toEqual(['b'.repeat(64), 'c'.repeat(64)]);
    expect(joined.from).toMatchObject({ title: 'Two', price: 'One', attributes: 'Two', photos: 'Two' });
  });

  test('a preferred one wins wherever it says something', () => {
    const joined = joinSources([one, two], {
      title: 'One',
      photos: 'One',
      price: 'Two',
      attributes: 'One',
      brand: 'One',
    });
    expect(joined.fields).toMatchObject({ title: 'Lantern', price: 1_100 });
    expect(joined.fields.attributes).toEqual({ Colour: 'Brass', Height: '20 cm' });
    expect(joined.photos).toEqual(['a'.repeat(64)]);
  });

  test('grades that contradict each other: the most exact one, the lowest of it', () => {
    const grade = (...grades: Told['grades']) => source(grades.join(), { grades });
    expect(joinSources([grade('new'), grade('good', 'fair')]).fields.condition).toBe('new');
    expect(joinSources([grade('good', 'fair')]).fields.condition).toBe('fair');
    expect(joinSources([source('Silent')]).fields.condition).toBeUndefined();
  });

  test('the stock is the least that is offered, said where they disagree; one at its cap only says that there are no fewer', () => {
    const offer = (id: string, quantity: number | null, isCapped = false) => source(id, { quantity, isCapped });
    expect(joinSources([offer('One', 3), offer('Two', 2)])).toMatchObject({
      quantity: 2,
      stockSaid: 'One: 3, Two: 2; taken: 2, the least',
    });
    expect(joinSources([offer('One', 3), offer('Flea', 1, true)])).toMatchObject({ quantity: 3, stockSaid: null });
    expect(joinSources([offer('Flea', 1, true)])).toMatchObject({ quantity: 1, stockSaid: null });
    expect(joinSources([offer('Silent', null)])).toMatchObject({ quantity: 1 });
  });

  test('never more is offered than anybody offered who could have offered more', () => {
    const offers = fc.array(fc.record({ quantity: fc.integer({ min: 0, max: 50 }), isCapped: fc.boolean() }), {
      minLength: 1,
      maxLength: 5,
    });
    fc.assert(
      fc.property(offers, (some) => {
        const { quantity } = joinSources(some.map((part, at) => source(`S${at}`, part)));
        for (const part of some) if (!part.isCapped) expect(quantity).toBeLessThanOrEqual(part.quantity);
        expect(some.some((part) => part.quantity === quantity)).toBe(true);
      }),
    );
  });
});

test('properties are added under one name', () => {
  expect(withMoreAttributes({ Colour: 'Black' }, { Shade: 'Jet', Colour: 'Red', Height: '2 m' })).toEqual({
    Colour: 'Black',
    Height: '2 m',
  });
});

describe('what stays as it is', () => {
  const nothing = () => false;
  test('a value of theirs is written for the account, one that is the same is not, an empty list is none', () => {
    const shown = { title: 'Theirs', price: 900, tags: [] };
    const wanted = (own: Record<string, unknown>) => ({
      title: 'Ours',
      price: 900,
      brand: 'Brask',
      ...(own as object),
    });
    const kept = keptAsShown(shown, wanted, nothing);
    expect(kept.overrides).toEqual({ title: 'Theirs', brand: null });
    expect(kept.sent).toMatchObject({ title: 'Theirs', price: 900 });
  });

  test('what they never show is taken for what would be sent; stock and number are nobody’s to write', () => {
    const wanted = () => ({ weightGrams: 900, quantity: 2, sku: 'A-1', photos: ['x'] });
    expect(keptAsShown({ quantity: 5 }, wanted, (field) => field === 'weightGrams')).toEqual({
      overrides: {},
      sent: { weightGrams: 900, quantity: 5, sku: 'A-1', photos: ['x'] },
    });
  });

  test('what is written may change what is asked for: it is looked at again', () => {
    const shown = { category: '12', 'attr.author': 'R. Lindholm' };
    const wanted = (own: Overrides): Content =>
      own.category === '12'
        ? { category: '12', ...('attr.author' in own ? { 'attr.author': String(own['attr.author']) } : {}) }
        : { category: '11', 'attr.colour': 'Black' };
    const { overrides, sent } = keptAsShown(shown, wanted, nothing);
    expect(overrides).toMatchObject(shown);
    expect(sent).toMatchObject(shown);
  });
});
