import sharp from 'sharp';
import type { Item } from '../src/core/item';
import { emptyItemFields } from '../src/core/item';
import { type AccountContext, type Content, computeListing } from '../src/core/listing';
import { noAllowance } from '../src/core/measure';
import { samePricing } from '../src/core/price';
import { compileRules, type MarketRules } from '../src/core/rules';
import { catalogue, type DemoItem } from './catalogue';
import { columnOf, counterparts } from './counterparts';
import { scene, seeded, type View } from './draw/scene';
import { drawThing } from './draw/things';

/** How a picture was treated before it was put up somewhere: packed anew, cut, turned, filled up to a square. */
export type Treatment = 'packed' | 'cut' | 'turned' | 'squared';
export type Shot = { view: View; treated: Treatment };

/** One thing as it stands on one marketplace, put there by other means. */
export type Listed = { thing: number; market: string; item: Item; hasNumber: boolean; shots: Shot[] };

export const marketsElsewhere = ['hallowick', 'pippet', 'oakhand', 'shopfront'] as const;

const grades = ['excellent', 'very-good', 'good', 'fair'] as const;

/** The same thing under another name, as people write it from one marketplace to the next. */
const wordings: ((title: string, random: () => number) => string)[] = [
  (title) => title,
  (title) => title.split(', ')[0] ?? title,
  (title) => title.replace(/film camera/, 'analogue camera').replace(', tested and working', ', works'),
  (title) => {
    const [name = '', ...rest] = title.split(', ');
    const words = name.split(' ');
    return [...words.slice(1), words[0], ...rest.slice(0, 1)].join(' ');
  },
  (title) => `${title.replace(', tested and working', '')} – ask for more pictures`,
];

const pick = <T>(random: () => number, from: readonly T[]): T => from[Math.floor(random() * from.length)] as T; // never empty here

function itemFor(demo: DemoItem, thing: number, random: () => number, day: Date): Item {
  const isUsed = demo.fields.condition !== 'new';
  return {
    ...emptyItemFields,
    ...demo.fields,
    id: thing + 1,
    version: 1,
    currency: 'EUR',
    quantity: demo.quantity,
    photos: [],
    clip: '',
    elsewhere: {},
    placings: {},
    looks: {},
    standing: 'active',
    own: {},
    // Each is a piece of its own: another number, another wear, another price.
    sku: `E-${5_000 + thing}`,
    condition: isUsed ? pick(random, grades) : 'new',
    price: Math.max(500, Math.round((demo.fields.price ?? 2_000) * (0.85 + random() * 0.3)) + (thing % 7) * 50),
    attributes: {
      ...demo.fields.attributes,
      ...(demo.fields.category?.startsWith('film/')
        ? { 'Expiry date': new Date(day.getTime() + 720 * 86_400_000).toISOString().slice(0, 10) }
        : {}),
    },
  } as Item; // the catalogue of the demo names every field that it leaves to the empty ones
}

/**
 * Things that a seller has listed by other means, on one to four marketplaces each: under differing titles, some with a
 * stock number and some without, with photos that were cut, turned or packed anew; among them many pieces of the same
 * model, which are different things. The same each time.
 * @param first the number of the first thing: others are other pieces, with numbers and pictures of their own
 */
export function elsewhere(
  count: number,
  {
    markets = marketsElsewhere,
    seed = 11,
    first: from = 0,
  }: { markets?: readonly string[]; seed?: number; first?: number } = {},
): Listed[] {
  const random = seeded(seed);
  const day = new Date('2026-03-01');
  return Array.from({ length: count }, (_, index) => {
    const thing = from + index;
    const demo = modelOf(thing);
    const item = itemFor(demo, thing, random, day);
    const on = 1 + Math.floor(random() * markets.length);
    const first = Math.floor(random() * markets.length);
    const numbered = random();
    return Array.from({ length: on }, (_, at): Listed => {
      const market = markets[(first + at) % markets.length] as string; // in its range
      const hasNumber = numbered < 0.45 || (numbered < 0.7 && at === 0);
      const treated = (): Treatment =>
        random() < 0.12 ? 'turned' : random() < 0.12 ? 'squared' : random() < 0.4 ? 'cut' : 'packed';
      return {
        thing,
        market,
        item: {
          ...item,
          title: pick(random, wordings)(item.title, random),
          price: Math.round((item.price ?? 1_000) * (0.97 + random() * 0.08)),
        },
        hasNumber,
        shots: (random() < 0.35 ? (['front'] as const) : (['front', 'angle'] as const)).map((view) => ({
          view,
          treated: treated(),
        })),
      };
    });
  }).flat();
}

const models = catalogue().filter((one) => one.thing.kind !== 'print');
const modelOf = (thing: number): DemoItem => models[(thing * 7) % models.length] as DemoItem; // the list is never empty

const drawn = new Map<string, Promise<Buffer>>();

/**
 * The original picture of one piece. No two pieces are photographed alike: another distance, another light, the camera held
 * a little askew. Kept, since it goes to several marketplaces.
 */
function originalOf(thing: number, view: View, width: number): Promise<Buffer> {
  const key = `${thing} ${view} ${width}`;
  const known = drawn.get(key);
  if (known) return known;
  const made = draw(thing, view, width);
  drawn.set(key, made);
  return made;
}

async function draw(thing: number, view: View, width: number): Promise<Buffer> {
  const random = seeded(thing * 97 + view.length * 13);
  for (let skipped = 0; skipped < 5; skipped++) random();
  const seed = 10_000 + thing * 31;
  const piece = { ...modelOf(thing).thing, seed };
  const svg = scene(drawThing(piece), view, seed + view.length * 13);
  const part = 0.78 + random() * 0.17;
  const [wide, high] = [Math.round(width * part), Math.round(width * part * 0.75)];
  const left = Math.round(random() * (width - wide));
  const top = Math.round(random() * (Math.round(width * 0.75) - high));
  const askew = (random() - 0.5) * 9;
  const light = 0.86 + random() * 0.3;
  const turned = await sharp(Buffer.from(svg), { density: (72 * width) / 900 })
    .resize(width, Math.round(width * 0.75))
    .flatten({ background: '#cfc8bd' })
    .raw()
    .toBuffer({ resolveWithObject: true });
  const raw = { width: turned.info.width, height: turned.info.height, channels: turned.info.channels };
  const askewed = await sharp(turned.data, { raw })
    .extract({ left, top, width: wide, height: high })
    .rotate(askew, { background: '#cfc8bd' })
    .png({ compressionLevel: 1 })
    .toBuffer();
  return sharp(askewed)
    .resize(width, Math.round(width * 0.75), { fit: 'cover' })
    .modulate({ brightness: light, saturation: 0.8 + random() * 0.4 })
    .jpeg({ quality: 88 })
    .toBuffer();
}

/**
 * A picture of a thing, treated as it was for one marketplace.
 * @param width of the original in pixels
 */
export async function shotOf(thing: number, { view, treated }: Shot, width = 900): Promise<Buffer> {
  const original = await originalOf(thing, view, width);
  const high = Math.round(width * 0.75);
  const square = { width, height: width, fit: 'contain', background: '#ffffff' } as const;
  switch (treated) {
    case 'packed':
      return sharp(original)
        .resize(Math.round(width * 0.85))
        .jpeg({ quality: 62 })
        .toBuffer();
    case 'cut': {
      const [left, top] = [
        Math.round(width * (0.02 + (thing % 9) / 1_000)),
        Math.round(high * (0.02 + (thing % 7) / 1_000)),
      ];
      const part = { left, top, width: Math.round(width * 0.945), height: Math.round(high * 0.945) };
      return sharp(original).extract(part).jpeg({ quality: 70 }).toBuffer();
    }
    case 'turned':
      return sharp(original).rotate(90).jpeg({ quality: 66 }).toBuffer();
    case 'squared':
      return sharp(original).resize(square).jpeg({ quality: 72 }).toBuffer();
  }
}

/** A seller's account on a marketplace, with the categories that the demo's goods have there. */
export function sellerElsewhere(market: string, rules: MarketRules): AccountContext {
  const column = columnOf[market];
  const leafOf = (name: string | undefined) => rules.categories.find((one) => one.leaf && one.name === name)?.id;
  const categoryMap = Object.fromEntries(
    Object.entries(counterparts).flatMap(([own, names]) => {
      const id = column === undefined ? undefined : leafOf(names[column]);
      return id ? [[own, id]] : [];
    }),
  );
  const defaults: Record<string, Record<string, string | boolean>> = {
    oakhand: { maker: 'other', kind: 'finished', postageProfile: 'parcel', returnProfile: 'fortnight' },
    hallowick: { returns: 'buyer-14', postage: 'buyer-tracked' },
    pippet: { postagePaidBy: 'seller', priceDrops: false },
    shopfront: { stockPlace: 'shop' },
    lanesend: { place: 'Osterlund', handover: 'both' },
  };
  return {
    id: 1,
    name: market,
    compiled: compileRules(rules),
    defaults: defaults[market] ?? {},
    categoryMap,
    synonyms: { names: {}, values: {} },
    maps: {},
    products: {},
    templates: [],
    footer: '',
    houseTag: '',
    pricing: samePricing,
    rate: null,
    packaging: noAllowance,
    packing: { perParcel: 0, perKilo: 0, minutes: 0, hourly: 0 },
    parcels: { boxes: [], tariffs: [] },
    today: '2026-03-01',
  };
}

/** What such a listing says there. */
export function contentElsewhere({ item, hasNumber }: Listed, account: AccountContext): Content {
  const photos = [{ hash: '0'.repeat(64), width: 900, height: 675 }];
  const { content } = computeListing({ item: { ...item, photos }, overrides: {}, account });
  const { sku, ...rest } = content;
  return hasNumber && sku !== undefined ? { ...rest, sku } : rest;
}
