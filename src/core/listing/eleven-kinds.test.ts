import { sampleAccount, sampleItem, sampleRules } from '../testing.test-data';
import { computeListing, type Template } from './';

type Parts = {
  item?: Parameters<typeof sampleItem>[0];
  rules?: Parameters<typeof sampleRules>[0];
  account?: Parameters<typeof sampleAccount>[1];
  here?: Record<string, string | number | string[]>;
  numberThere?: string;
  timesMade?: number;
};
function tell({ item, rules, account, here = {}, numberThere, timesMade }: Parts) {
  const computed = computeListing({
    item: sampleItem(item),
    overrides: here,
    account: sampleAccount(sampleRules(rules), account),
    numberThere,
    timesMade,
  });
  const of = (field: string) => {
    const found = computed.values.find((value) => value.field === field);
    if (!found) throw new Error(field);
    return found;
  };
  return { computed, of, codes: computed.issues.map((issue) => issue.code) };
}
const template = (fields: Record<string, string>, part: Partial<Template> = {}): Template => ({
  id: 1,
  name: 'T',
  conditions: [],
  fields,
  previous: null,
  ...part,
});
const rich = { format: 'rich' as const, min: 1, max: 9_000 };

describe('text', () => {
  test('the note is told once: not again when the text says it already', () => {
    const said = { conditionNote: 'Light brassing.', description: '<p>A camera. Light  <b>brassing</b>. Fine.</p>' };
    expect(String(tell({ item: said }).of('description').value).match(/brassing/gi)).toHaveLength(1);
    expect(String(tell({ item: { ...said, description: '<p>A camera.</p>' } }).of('description').value)).toContain(
      'Condition: Very good. Light brassing.',
    );
  });

  test('links go where they are forbidden, and that is said', () => {
    const { of } = tell({
      item: { description: '<p>See <a href="https://x.example">us</a></p>' },
      rules: { description: { ...rich, links: false } },
    });
    expect(of('description')).toMatchObject({ lost: ['a link'] });
    expect(of('description').value).toContain('<p>See us</p>');
  });

  test('the first line is the title where there is no title', () => {
    const { of } = tell({
      rules: { title: null, description: { format: 'plain', min: 1, max: 850, titleFirst: true } },
    });
    expect(String(of('description').value).split('\n')[0]).toBe(sampleItem().title);
  });

  test('highlights stand in their own field, or in the text, never in both', () => {
    const item = { highlights: ['Tested', 'Complete'] };
    const own = tell({ item, rules: { highlights: { min: 2, max: 5, maxLength: 40 } } });
    expect(own.of('highlights').value).toEqual(['Tested', 'Complete']);
    expect(own.of('description').value).not.toContain('Tested');
    expect(tell({ item }).of('description').value).toContain('• Tested');
  });

  test('too few highlights of one’s own are told', () =>
    expect(
      tell({ here: { highlights: ['one'] }, rules: { highlights: { min: 2, max: 5, maxLength: 40 } } }).codes,
    ).toContain('highlights-few'));

  test('an optional description may be missing', () => {
    expect(
      tell({ item: { description: '', conditionNote: '' }, rules: { description: { ...rich, min: 0 } } }).codes,
    ).not.toContain('description-short');
    expect(tell({ rules: { description: null } }).of('description').origin).toBe('unused');
  });

  test('what counts is what is seen, where the marketplace counts so', () => {
    const item = { description: `<p>${'<b>x</b>'.repeat(60)}</p>`, conditionNote: '' };
    expect(tell({ item, rules: { description: { ...rich, max: 100 } } }).codes).toContain('description-long');
    expect(tell({ item, rules: { description: { ...rich, max: 100, counts: 'seen' } } }).codes).not.toContain(
      'description-long',
    );
  });
});

describe('templates', () => {
  test('say a text around the item’s own; the origin tells', () => {
    const { of, computed } = tell({
      account: { templates: [template({ description: 'From {{ brand }}. {{ description }}' })] },
    });
    expect(of('description')).toMatchObject({ origin: 'template' });
    expect(String(of('description').value)).toMatch(/^From Brask\. Checked with a test film\./);
    expect(computed.template).toEqual({ id: 1, name: 'T', tiedWith: [] });
  });

  test('give tags besides the item’s own, a note, a title, and values of own fields', () => {
    const fields = {
      tags: 'brass, slr',
      conditionNote: 'Sold as seen, {{ condition | downcase }}.',
      title: '{{ brand }} {{ model }}',
      'extra.postage': 'free',
    };
    const { of } = tell({
      account: { templates: [template(fields)], defaults: {} },
      rules: { tags: { max: 9, maxLength: 20, letters: 'words' }, conditionNote: { max: 80, forbiddenOn: [] } },
    });
    expect(of('tags').value).toEqual(['film camera', 'slr', 'analogue', 'brass']);
    expect(of('conditionNote').value).toBe('Sold as seen, very good.');
    expect(of('title')).toMatchObject({ value: 'Brask K-2', origin: 'template' });
    expect(of('extra.postage')).toMatchObject({ value: 'free', origin: 'template' });
  });

  test('never stand before what was written here', () => {
    const { of } = tell({
      here: { title: 'Mine', description: 'My own words.' },
      account: { templates: [template({ title: 'Theirs', description: 'Theirs' })] },
    });
    expect(of('title')).toMatchObject({ value: 'Mine', origin: 'override' });
    expect(of('description')).toMatchObject({ value: 'My own words.', origin: 'override' });
  });

  test('a hole blocks, with what to add; nothing is sent with it', () => {
    const { computed, of } = tell({ account: { templates: [template({ footer: 'From {{ harbour }}' })] } });
    expect(computed.ready).toBe(false);
    expect(of('description').issues).toEqual([
      {
        code: 'template-variable',
        field: 'footer',
        message: 'The template “T” needs “harbour”, which this item does not say',
        blocks: true,
        fix: { kind: 'edit-master', field: 'attributes.harbour', label: 'Add harbour' },
      },
    ]);
  });

  test('a footer of the account may hold variables, a template’s footer stands before it', () => {
    expect(String(tell({ account: { footer: 'No. {{ stock_number }}' } }).of('description').value)).toMatch(
      /No\. C1-100$/,
    );
    const both = tell({ account: { footer: 'Account', templates: [template({ footer: 'Template' })] } });
    expect(String(both.of('description').value)).toMatch(/Template$/);
    expect(tell({ account: { footer: '{{ nothing_there }}' } }).codes).toContain('template-variable');
  });
});

describe('what identifies', () => {
  const sku = { min: 4, max: 40, once: true };
  test('a stock number in their letters; the one it is live under stays', () => {
    expect(tell({ item: { sku: 'C1/1.b' }, rules: { sku } }).of('sku')).toMatchObject({
      value: 'C1-1-b',
      origin: 'fitted',
    });
    expect(tell({ item: { sku: 'C1-100' }, rules: { sku }, timesMade: 2 }).of('sku').value).toBe('C1-100-3');
    expect(
      tell({ item: { sku: 'C1-100' }, rules: { sku }, timesMade: 2, numberThere: 'C1-100-2' }).of('sku').value,
    ).toBe('C1-100-2');
  });

  test('a catalogue product by what identifies the thing; its category comes with it', () => {
    const rules = { product: { required: true }, category: 'product' as const, title: null, description: null };
    const products = { 'name:braskk2': { id: 'P7', name: 'Brask K-2', categoryId: '11' } };
    const known = tell({ rules, account: { products } });
    expect(known.of('product')).toMatchObject({ value: 'P7', origin: 'rule', issues: [] });
    expect(known.of('category').value).toBe('11');
    expect(known.computed.values.some((value) => value.field.startsWith('attr.'))).toBe(false);
    expect(tell({ rules }).codes).toContain('product-missing');
    expect(tell({ rules, here: { product: 'P8' }, account: { products } }).codes).toContain('product-unknown');
    expect(tell({ rules, item: { brand: '', model: '' } }).of('product').issues[0]?.fix.kind).toBe('edit-master');
  });

  test('a shared record may be adopted: a known one, of the maker that the listing names', () => {
    const rules = { product: { required: false } };
    const products = { 'code:2044000000118': { id: 'P7', name: 'Brask K-2', categoryId: null } };
    const account = { products };
    const item = { barcode: '2044000000118' };
    expect(tell({ rules }).of('product')).toMatchObject({ value: null, issues: [] });
    expect(tell({ rules, item, account }).of('product')).toMatchObject({ value: 'P7', issues: [] });
    expect(tell({ rules, account, here: { product: 'P8' } }).codes).toContain('product-unknown');
    const others = tell({ rules, account, item: { ...item, brand: 'Orvane' } });
    expect(others.codes).toContain('product-brand');
    expect(tell({ rules, account, item: { ...item, brand: '' } }).of('product').issues[0]?.fix.kind).toBe(
      'edit-master',
    );
  });
});

describe('the offer', () => {
  const square = { min: 1, max: 3, minLongestSide: 600, minShortestSide: 600, shape: { narrow: 1, wide: 1 } };

  test('photos carry the shape they need', () => {
    const { of } = tell({ rules: { photos: square } });
    expect(of('photos')).toMatchObject({ value: [`${'a'.repeat(64)}~1x1`], origin: 'fitted' });
  });

  test('the catalogue’s own pictures are not ours to send', () => {
    const { of, codes } = tell({
      item: { photos: [] },
      rules: { photos: { min: 0, max: 0, minLongestSide: 0, kind: 'catalogue' } },
    });
    expect(of('photos').origin).toBe('unused');
    expect(codes).not.toContain('photos-few');
  });

  test('artwork is the first picture that is large enough', () => {
    const photos = [
      { hash: 'a'.repeat(64), width: 900, height: 900 },
      { hash: 'b'.repeat(64), width: 3_000, height: 2_000 },
    ];
    const { of } = tell({
      item: { photos },
      rules: { photos: { min: 1, max: 1, minLongestSide: 2_400, kind: 'artwork' } },
    });
    expect(of('photos').value).toEqual(['b'.repeat(64)]);
    expect(
      tell({
        item: { photos: photos.slice(0, 1) },
        rules: { photos: { min: 1, max: 1, minLongestSide: 2_400, kind: 'artwork' } },
      }).codes,
    ).toContain('photos-small');
  });

  test('packing is part of the weight', () => {
    const { of } = tell({ account: { packaging: { basisPoints: 1_000, atLeastGrams: 50 } } });
    expect(of('weightGrams')).toMatchObject({ value: 990, origin: 'fitted' });
  });

  test('prices by rule say how they were made; without a rate there is none, and that is told', () => {
    const sgd = { currency: 'SGD' };
    const rate = { from: 'EUR', to: 'SGD', millionths: 1_500_000, date: '2026-03-01' };
    expect(tell({ rules: sgd, account: { rate } }).of('price')).toMatchObject({
      value: 22_350,
      origin: 'fitted',
      how: 'at the rate of 2026-03-01',
    });
    expect(tell({ rules: sgd }).codes).toContain('price-rate');
    expect(tell({ rules: { price: null } }).of('price').origin).toBe('unused');
  });

  test('a price below the base price, or one that postage and fees eat, is told', () => {
    const { fees } = sampleRules();
    const based = { ...fees, bases: { field: 'extra.postage', amounts: { buyer: 20_000 } } };
    expect(tell({ rules: { fees: based } }).codes).toContain('price-base');
    expect(tell({ here: { price: 700 }, rules: { price: { min: 1, max: 900_000, holds: true } } }).codes).toContain(
      'price-holds',
    );
  });
});
