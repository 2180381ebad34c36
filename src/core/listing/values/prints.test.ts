import { areaSchema, type PrintTemplate, placingSchema } from '../../artwork';
import type { MarketRules } from '../../rules';
import { sampleAccount, sampleItem, sampleRules } from '../../testing.test-data';
import { type ComputedListing, computeListing } from '../compute';
import type { Template } from '../template/template';

const area = areaSchema.parse({ widthMm: 300, heightMm: 400, widthPx: 3_000, heightPx: 4_000 });
const base = sampleRules();
const choice = (id: string, label: string, values: object[]): MarketRules['extras'][number] => ({
  ...(base.extras[0] ?? {}),
  id,
  label,
  type: 'choice',
  required: true,
  values: values as MarketRules['extras'][number]['values'], // of the rules' own form
  maxLength: null,
  maxItems: null,
  fallback: null,
});
const printer = sampleRules({
  photos: { min: 1, max: 1, minLongestSide: 2_400, kind: 'artwork' },
  variations: { maxAxes: 2, maxCombinations: 20, photos: true, printed: true },
  quantity: { max: 99 },
  fees: { ...base.fees, bases: { field: 'extra.product', amounts: { mug: 690, poster: 1_150 } } },
  extras: [
    ...base.extras,
    choice('product', 'Product', [
      { id: 'mug', label: 'Mug', area: { ...area, heightPx: 3_000, heightMm: 300 } },
      { id: 'poster', label: 'Poster', area },
    ]),
    choice('ground', 'Ground', [
      { id: 'w', label: 'White', colour: '#ffffff' },
      { id: 'b', label: 'Black', colour: '#000000' },
    ]),
    { ...choice('lies', 'Placement', [{ id: 'full', label: 'Full' }]), printed: 'full' },
  ],
});
const artwork = sampleItem({
  photos: [
    {
      hash: 'a'.repeat(64),
      width: 4_000,
      height: 5_000,
      visible: { box: { x: 0, y: 0, width: 1, height: 1 }, centre: { x: 0.5, y: 0.5 } },
    },
  ],
  attributes: { 'Film format': '35 mm', 'Reads well on': 'White' },
  quantity: 99,
  price: 2_000,
});
const grounds = ['White', 'Black'].map((name) => ({ name, colour: null }));
const print: PrintTemplate = {
  pieces: [
    { product: 'Mug', area: null, price: 1_400, grounds },
    { product: 'Poster', area: null, price: null, grounds },
  ],
  placing: null,
  background: null,
};
const template = (part: Partial<Template> = {}): Template => ({
  id: 1,
  name: 'Prints',
  conditions: [],
  fields: {},
  print,
  previous: null,
  ...part,
});
const computed = (item = artwork, templates = [template()], overrides = {}): ComputedListing =>
  computeListing({ item, overrides, account: sampleAccount(printer, { templates }) });
const partOf = (listing: ComputedListing, field: string) => listing.values.find((one) => one.field === field);
const rowsOf = (listing: ComputedListing) =>
  ((listing.content.variations ?? { rows: [] }) as { rows: { values: string[]; price: number }[] }).rows.map((one) => [
    ...one.values,
    one.price,
  ]);

test('every product on the grounds that suit it; the listing as a whole is called by its cheapest', () => {
  const listing = computed();
  expect(rowsOf(listing)).toEqual([
    ['Mug', 'White', 1_400],
    ['Poster', 'White', 2_000],
  ]);
  expect(listing.content).toMatchObject({
    price: 1_400,
    'extra.product': 'mug',
    'extra.ground': 'w',
    'extra.lies': 'full',
  });
  expect(listing.content.photos).toHaveLength(2);
  expect(String((listing.content.photos as string[])[0])).toMatch(new RegExp(`^${'a'.repeat(64)}!`));
  expect(partOf(listing, 'variations')?.origin).toBe('template');
});

test('an item that is no artwork is not touched by such a template', () => {
  const [photo] = artwork.photos;
  const plain = { ...artwork, photos: [{ hash: photo?.hash ?? '', width: 4_000, height: 5_000 }] };
  expect(computed(plain).content.variations).toBeUndefined();
  expect(computed(plain)).toEqual(computed(plain, []));
});

test('what the file was called is a variable of templates', () => {
  const [photo] = artwork.photos;
  const named = { ...artwork, photos: photo ? [{ ...photo, fileName: 'harbour_07.png' }] : [] };
  const texts = template({ id: 2, name: 'Named', print: null, fields: { title: 'Seen on {{ file_name }}' } });
  expect(computed(named, [template(), texts]).content.title).toBe('Seen on harbour_07');
  const missing = computed(artwork, [template(), texts]).issues.map((one) => one.message);
  expect(missing.join()).toContain('file_name');
});

test('no template that fits, and no default: said, and nothing goes out', () => {
  const listing = computed(artwork, [template({ conditions: [{ field: 'title', op: 'is', value: 'Other' }] })]);
  expect(listing.ready).toBe(false);
  expect(listing.issues.map((one) => one.message).join()).toContain('no default one');
});

test('the most specific one wins, ties are said; texts are chosen beside it', () => {
  const narrow = template({
    id: 2,
    name: 'For walkers',
    conditions: [{ field: 'title', op: 'is', value: artwork.title }],
    print: { ...print, pieces: print.pieces.slice(1) },
  });
  const texts = template({ id: 3, name: 'Texts', print: null, fields: { tags: 'drawn' } });
  const listing = computed(artwork, [template(), narrow, texts]);
  expect(rowsOf(listing)).toEqual([['Poster', 'White', 2_000]]);
  expect(listing.template?.name).toBe('Texts');
});

test('what is below the price of making it, and what they do not make any more, is said', () => {
  const cheap = computed(artwork, [
    template({
      print: {
        ...print,
        pieces: [
          { product: 'Poster', area: null, price: 900, grounds },
          { product: 'Flag', area: null, price: null, grounds },
        ],
      },
    }),
  ]);
  const said = cheap.issues.map((one) => one.message).join('; ');
  expect(said).toContain('Poster: the price must be at least the base price');
  expect(said).toContain('no product “Flag” any more');
  expect(cheap.ready).toBe(false);
});

test('on no ground it reads: nothing is offered, and it is said', () => {
  const dark = computed({ ...artwork, attributes: { ...artwork.attributes, 'Reads well on': 'Sand' } });
  expect(dark.ready).toBe(false);
  expect(dark.issues.map((one) => one.code)).toContain('print-none');
});

test('too small for its size and outside of the area are said, and do not hold it up', () => {
  const wide = template({ print: { ...print, placing: placingSchema.parse({ scale: 1.4 }) } });
  const issues = computed(artwork, [wide]).issues.filter((one) => one.code.startsWith('print-'));
  expect(issues.map((one) => [one.code, one.blocks])).toContainEqual(['print-outside', false]);
});

test('another measure of theirs makes another file; the template stays as it is', () => {
  const before = computed().content.photos;
  const other = {
    ...printer,
    extras: printer.extras.map((extra) => ({
      ...extra,
      values:
        extra.values?.map((one) =>
          one.area ? { ...one, area: { ...one.area, heightMm: 500, heightPx: 5_000 } } : one,
        ) ?? null,
    })),
  };
  const after = computeListing({
    item: artwork,
    overrides: {},
    account: sampleAccount(other, { templates: [template()] }),
  }).content.photos;
  expect(after).not.toEqual(before);
});
