import type { Item } from '../../src/core/item';
import { conditionIds } from '../../src/core/item';
import type { Json } from '../../src/core/json';
import type { Overrides } from '../../src/core/listing';
import type { MarketRules } from '../../src/core/rules';

export type Varied = { what: string; item: Item; overrides: Overrides };

type Twist = {
  what: string;
  item?: Partial<Item> | ((item: Item) => Partial<Item>);
  here?: (rules: MarketRules) => Record<string, Json | undefined>;
};

const long = (words: number) => Array.from({ length: words }, (_, index) => `word${index}`).join(' ');
const photosOf = (item: Item, count: number): Item['photos'] =>
  Array.from({ length: count }, (_, index) => item.photos[index % Math.max(1, item.photos.length)]).filter(
    (one): one is Item['photos'][number] => one !== undefined,
  );
const required = (rules: MarketRules) => rules.extras.filter((extra) => extra.required && extra.type === 'choice');

/** What people write, forget, paste in from elsewhere, and get wrong. */
const twists: Twist[] = [
  { what: 'as it is' },
  { what: 'no title', item: { title: '' } },
  { what: 'a very long title', item: (item) => ({ title: `${item.title} ${long(40)}` }) },
  { what: 'a title of signs', item: (item) => ({ title: `*** ${item.title} *** [rare!] 100 % / "mint"` }) },
  { what: 'a title with letters from elsewhere', item: (item) => ({ title: `${item.title} Größe Ø 49 “schön” 📷` }) },
  { what: 'no brand', item: { brand: '' } },
  { what: 'a brand nobody lists', item: { brand: 'Uncharted & Sons' } },
  { what: 'no description', item: { description: '', highlights: [], conditionNote: '' } },
  {
    what: 'a description with links',
    item: { description: '<p>See <a href="https://grainhouse.example/x">our shop</a> or www.grainhouse.example</p>' },
  },
  { what: 'a huge description', item: { description: `<p>${long(5_000)}</p>` } },
  {
    what: 'plain words that look like markup',
    item: {
      description: '<p>Use &lt;b&gt;bold&lt;/b&gt; here, 1 &lt; 2</p>',
      conditionNote: 'Knob <loose>, see photo',
    },
  },
  { what: 'no price', item: { price: null } },
  { what: 'a price of one cent', item: { price: 1 } },
  { what: 'a price beyond everything', item: { price: 900_000_000 } },
  { what: 'a price that postage eats', item: { price: 310 } },
  { what: 'a retail price below the price', item: (item) => ({ retailPrice: Math.max(1, (item.price ?? 100) - 50) }) },
  { what: 'a retail price above the price', item: (item) => ({ retailPrice: (item.price ?? 100) + 2_000 }) },
  { what: 'no condition', item: { condition: null } },
  ...conditionIds.map((condition): Twist => ({ what: `condition ${condition}`, item: { condition } })),
  { what: 'a long note', item: { conditionNote: long(200) } },
  { what: 'no category', item: { category: '' } },
  { what: 'a category without counterpart', item: { category: 'garden/spades', title: 'Spade of iron' } },
  { what: 'no attributes', item: { attributes: {} } },
  {
    what: 'attributes nobody lists',
    item: (item) => ({
      attributes: { ...item.attributes, Colour: 'Ultraviolet', Material: 'Unobtainium', 'Film format': '9,5 mm' },
    }),
  },
  {
    what: 'very long attributes',
    item: (item) => ({
      attributes: {
        ...item.attributes,
        Model: long(30),
        Author: long(30),
        'Focal length': long(20),
        'Film speed': long(20),
        Contents: long(80),
      },
    }),
  },
  { what: 'no photos', item: { photos: [] } },
  { what: 'forty photos', item: (item) => ({ photos: photosOf(item, 40) }) },
  { what: 'no weight', item: { weightGrams: null } },
  { what: 'heavy as a stove', item: { weightGrams: 48_000 } },
  { what: 'no size', item: { lengthMm: null, widthMm: null, heightMm: null } },
  { what: 'many keywords', item: { keywords: Array.from({ length: 50 }, (_, index) => `keyword number ${index}`) } },
  {
    what: 'keywords of signs',
    item: { keywords: ['35 mm!', '#film', 'a/b', 'x'.repeat(60), 'Film', 'films', 'FILM'] },
  },
  {
    what: 'many highlights',
    item: { highlights: Array.from({ length: 12 }, (_, index) => `highlight ${index} ${long(20)}`) },
  },
  { what: 'highlights with markup', item: { highlights: ['<b>Bold</b> claim', 'second <i>line</i>'] } },
  { what: 'an unknown barcode and name', item: { barcode: '4000000000006', brand: 'Nobody', model: 'Nothing 1' } },
  {
    what: 'an expiry date too near',
    item: (item) => ({ attributes: { ...item.attributes, 'Expiry date': '2020-01-31' } }),
  },
  { what: 'many pieces', item: { quantity: 5_000 } },
  { what: 'a title of one’s own that is too long', here: (rules) => (rules.title ? { title: long(60) } : {}) },
  {
    what: 'a title of one’s own with signs',
    here: (rules) => (rules.title ? { title: 'Own, title; with: signs!' } : {}),
  },
  {
    what: 'too many tags of one’s own',
    here: (rules) =>
      rules.tags ? { tags: Array.from({ length: rules.tags.max + 1 }, (_, index) => `tag${index}`) } : {},
  },
  {
    what: 'a tag of one’s own that is too long',
    here: (rules) => (rules.tags ? { tags: ['x'.repeat(rules.tags.maxLength + 1)] } : {}),
  },
  {
    what: 'tags of one’s own with blanks and signs',
    here: (rules) => (rules.tags && rules.tags.letters !== 'any' ? { tags: ['two words!'] } : {}),
  },
  {
    what: 'markup in a text of one’s own',
    here: (rules) =>
      rules.description && rules.description.format !== 'rich' ? { description: 'Some <b>markup</b> here' } : {},
  },
  {
    what: 'a link in a text of one’s own',
    here: (rules) =>
      rules.description?.links === false ? { description: '<p>Look at https://elsewhere.example</p>' } : {},
  },
  {
    what: 'a text of one’s own that is too long',
    here: (rules) => (rules.description ? { description: 'y'.repeat(rules.description.max + 1) } : {}),
  },
  { what: 'a category that is gone', here: (rules) => (rules.category === 'needed' ? { category: 'nowhere' } : {}) },
  {
    what: 'a category that is not the deepest',
    here: (rules) =>
      rules.category === 'needed' ? { category: rules.categories.find((one) => !one.leaf)?.id ?? '' } : {},
  },
  { what: 'a condition nobody knows', here: (rules) => (rules.conditions.length ? { condition: 'ruined' } : {}) },
  { what: 'a price of one’s own out of range', here: (rules) => (rules.price ? { price: rules.price.max + 1 } : {}) },
  {
    what: 'a note of one’s own that is too long',
    here: (rules) => (rules.conditionNote ? { conditionNote: 'z'.repeat(rules.conditionNote.max + 1) } : {}),
  },
  { what: 'too few highlights of one’s own', here: (rules) => (rules.highlights ? { highlights: ['only one'] } : {}) },
  {
    what: 'too many highlights of one’s own',
    here: (rules) =>
      rules.highlights
        ? { highlights: Array.from({ length: rules.highlights.max + 1 }, (_, index) => `line ${index}`) }
        : {},
  },
  {
    what: 'a highlight of one’s own that is too long',
    here: (rules) => (rules.highlights ? { highlights: ['x'.repeat(rules.highlights.maxLength + 1), 'second'] } : {}),
  },
  { what: 'a product that is not there', here: (rules) => (rules.product ? { product: 'XX0' } : {}) },
  {
    what: 'own fields with unknown choices',
    here: (rules) => Object.fromEntries(required(rules).map((extra) => [`extra.${extra.id}`, 'unheard of'])),
  },
  {
    what: 'own fields left empty',
    here: (rules) => Object.fromEntries(required(rules).map((extra) => [`extra.${extra.id}`, null])),
  },
  {
    what: 'own texts that are too long',
    here: (rules) =>
      Object.fromEntries(
        rules.extras
          .filter((extra) => extra.type === 'text' && extra.maxLength && extra.form === undefined)
          .map((extra) => [`extra.${extra.id}`, 'w'.repeat((extra.maxLength ?? 0) + 1)]),
      ),
  },
  {
    what: 'own lists that are too long',
    here: (rules) =>
      Object.fromEntries(
        rules.extras
          .filter((extra) => extra.type === 'choices' && extra.maxItems)
          .map((extra) => [
            `extra.${extra.id}`,
            (extra.values ?? []).slice(0, (extra.maxItems ?? 0) + 1).map((one) => one.id),
          ]),
      ),
  },
  {
    what: 'contents without numbers',
    here: (rules) =>
      rules.extras.some((extra) => extra.form === 'contents') ? { 'extra.contents': ['camera', 'strap'] } : {},
  },
  {
    what: 'a handle with signs',
    here: (rules) => (rules.extras.some((extra) => extra.form === 'handle') ? { 'extra.handle': 'Not a Handle!' } : {}),
  },
  {
    what: 'a sale price above the price',
    here: (rules) =>
      rules.extras.some((extra) => extra.against === 'below-price')
        ? { 'extra.salePrice': 90_000_000, 'extra.saleFrom': '2026-12-01', 'extra.saleTo': '2026-12-24' }
        : {},
  },
  {
    what: 'a sale price without dates',
    here: (rules) => (rules.extras.some((extra) => extra.against === 'below-price') ? { 'extra.salePrice': 400 } : {}),
  },
  {
    what: 'a compare-at price below the price',
    here: (rules) => (rules.extras.some((extra) => extra.against === 'above-price') ? { 'extra.compareAt': 1 } : {}),
  },
  {
    what: 'a number out of bounds',
    here: (rules) =>
      Object.fromEntries(
        rules.extras
          .filter((extra) => extra.type === 'integer' && extra.max)
          .map((extra) => [`extra.${extra.id}`, (extra.max ?? 0) + 1]),
      ),
  },
];

const said = (values: Record<string, Json | undefined>): Overrides =>
  Object.fromEntries(Object.entries(values).filter((entry): entry is [string, Json] => entry[1] !== undefined));

/** At least `wanted` varied items: the shop's own, each as it is or with one thing wrong, under numbers of their own. */
export function varied(items: Item[], rules: MarketRules, wanted: number): Varied[] {
  return Array.from({ length: wanted }, (_, index): Varied => {
    const base = items[(index * 7) % items.length] as Item; // the list is not empty
    const twist = index < wanted * 0.3 ? (twists[0] as Twist) : (twists[index % twists.length] as Twist); // within bounds
    const part = typeof twist.item === 'function' ? twist.item(base) : (twist.item ?? {});
    const sku = index % 31 === 0 ? `V${index}` : index % 17 === 0 ? `V${index}/x.${base.sku}` : `V${index}-${base.sku}`;
    return {
      what: twist.what,
      item: { ...base, ...part, quantity: Math.max(1, part.quantity ?? base.quantity), sku: sku.slice(0, 40) },
      overrides: said(twist.here?.(rules) ?? {}),
    };
  });
}
