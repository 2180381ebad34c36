import type { ConditionGrade, ItemPatch } from '../src/core/item';
import { withCheckDigit } from './barcodes';
import { seeded, type View } from './draw/scene';
import type { Thing } from './draw/things';

export type DemoItem = {
  fields: ItemPatch & { sku: string };
  quantity: number;
  thing: Thing;
  views: View[];
  boughtDaysAgo: number;
};

type Model = {
  kind: Thing['kind'];
  brand: string;
  model: string;
  what: string;
  category: string;
  mount?: string;
  format?: string;
  grams: number;
  price: number;
  colours: string[];
  decade: string;
  size: [number, number, number];
};

const cameras: Model[] = [
  {
    kind: 'slr',
    brand: 'Brask',
    model: 'K-2',
    what: '35 mm SLR film camera with 50 mm f/1.8 lens',
    category: 'cameras/slr',
    mount: 'Brask K',
    format: '35 mm',
    grams: 890,
    price: 14900,
    colours: ['black', 'silver'],
    decade: '1970s',
    size: [190, 130, 120],
  },
  {
    kind: 'slr',
    brand: 'Brask',
    model: 'K-5 Auto',
    what: '35 mm SLR film camera, aperture priority, with lens',
    category: 'cameras/slr',
    mount: 'Brask K',
    format: '35 mm',
    grams: 940,
    price: 18900,
    colours: ['black'],
    decade: '1980s',
    size: [190, 130, 120],
  },
  {
    kind: 'slr',
    brand: 'Orvane',
    model: 'M4',
    what: 'mechanical 35 mm SLR film camera, brass gears',
    category: 'cameras/slr',
    mount: 'Orvane M',
    format: '35 mm',
    grams: 980,
    price: 22900,
    colours: ['silver', 'black'],
    decade: '1960s',
    size: [190, 130, 120],
  },
  {
    kind: 'slr',
    brand: 'Quillon',
    model: 'Reflex 500',
    what: '35 mm SLR film camera, screw mount',
    category: 'cameras/slr',
    mount: 'Screw 42',
    format: '35 mm',
    grams: 910,
    price: 8900,
    colours: ['silver'],
    decade: '1970s',
    size: [190, 130, 120],
  },
  {
    kind: 'rangefinder',
    brand: 'Tessaly',
    model: 'IIIc',
    what: 'coupled rangefinder 35 mm film camera',
    category: 'cameras/rangefinder',
    mount: 'Tessaly L',
    format: '35 mm',
    grams: 720,
    price: 38900,
    colours: ['silver', 'black'],
    decade: '1950s',
    size: [180, 120, 90],
  },
  {
    kind: 'rangefinder',
    brand: 'Velmar',
    model: 'Lyra 35',
    what: 'fixed lens rangefinder 35 mm film camera',
    category: 'cameras/rangefinder',
    mount: 'Fixed',
    format: '35 mm',
    grams: 640,
    price: 11900,
    colours: ['brown', 'silver'],
    decade: '1960s',
    size: [180, 120, 90],
  },
  {
    kind: 'compact',
    brand: 'Kaskett',
    model: 'Pop 3',
    what: 'compact 35 mm film camera with flash',
    category: 'cameras/compact',
    mount: 'Fixed',
    format: '35 mm',
    grams: 280,
    price: 4900,
    colours: ['red', 'blue', 'black'],
    decade: '1990s',
    size: [160, 90, 70],
  },
  {
    kind: 'folding',
    brand: 'Fennick',
    model: 'Record 120',
    what: 'folding medium format camera 6×9',
    category: 'cameras/folding',
    mount: 'Fixed',
    format: '120',
    grams: 780,
    price: 9900,
    colours: ['black', 'brown'],
    decade: '1940s',
    size: [200, 120, 70],
  },
  {
    kind: 'box-camera',
    brand: 'Marlow & Finch',
    model: 'No. 2',
    what: 'box camera for 120 film',
    category: 'cameras/box',
    mount: 'Fixed',
    format: '120',
    grams: 560,
    price: 3900,
    colours: ['black', 'green'],
    decade: '1940s',
    size: [150, 140, 110],
  },
];

const lenses: Model[] = [
  {
    kind: 'lens',
    brand: 'Brask',
    model: '28 mm f/2.8',
    what: 'wide angle lens',
    category: 'lenses/slr',
    mount: 'Brask K',
    grams: 240,
    price: 7900,
    colours: ['black'],
    decade: '1980s',
    size: [100, 100, 90],
  },
  {
    kind: 'lens',
    brand: 'Brask',
    model: '135 mm f/3.5',
    what: 'telephoto lens with built-in hood',
    category: 'lenses/slr',
    mount: 'Brask K',
    grams: 420,
    price: 5900,
    colours: ['black'],
    decade: '1970s',
    size: [150, 100, 100],
  },
  {
    kind: 'lens',
    brand: 'Orvane',
    model: '50 mm f/1.4',
    what: 'fast standard lens',
    category: 'lenses/slr',
    mount: 'Orvane M',
    grams: 290,
    price: 15900,
    colours: ['silver', 'black'],
    decade: '1960s',
    size: [100, 100, 90],
  },
  {
    kind: 'lens',
    brand: 'Tessaly',
    model: '35 mm f/2',
    what: 'rangefinder lens, coated',
    category: 'lenses/rangefinder',
    mount: 'Tessaly L',
    grams: 210,
    price: 42900,
    colours: ['silver'],
    decade: '1950s',
    size: [90, 90, 80],
  },
  {
    kind: 'lens',
    brand: 'Noctal',
    model: '85 mm f/1.8',
    what: 'portrait lens',
    category: 'lenses/slr',
    mount: 'Screw 42',
    grams: 380,
    price: 19900,
    colours: ['black'],
    decade: '1970s',
    size: [120, 100, 100],
  },
];

const conditions: { grade: ConditionGrade; notes: string[] }[] = [
  {
    grade: 'excellent',
    notes: [
      'Shutter fires on all speeds, seals replaced in spring. Faint ring on the base plate.',
      'Clear glass, snappy diaphragm. A hairline scratch near the rewind crank, see photo.',
    ],
  },
  {
    grade: 'very-good',
    notes: [
      'Meter agrees with a modern one within half a stop. Light brassing at the edges.',
      'Some dust inside that does not show on film. Leatherette tight all round.',
    ],
  },
  {
    grade: 'good',
    notes: [
      'Working, with marks from years of use: a rub mark on the front and scratches on the top plate, see photo.',
      'Focus ring a little stiff. Rear cap included, front cap missing.',
    ],
  },
  {
    grade: 'fair',
    notes: [
      'Slow speeds hang when cold. Finder hazy but usable.',
      'Fungus threads at the edge of the front element, priced for it.',
    ],
  },
  { grade: 'parts', notes: ['Shutter stuck half open, meter dead. Sold for parts or repair.'] },
];

const pick = <T>(random: () => number, list: readonly T[]): T => {
  const found = list[Math.floor(random() * list.length)];
  if (found === undefined) throw new Error('nothing to pick from');
  return found;
};

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

function used(model: Model, index: number): DemoItem {
  const random = seeded(index * 131 + 7);
  const colour = pick(random, model.colours);
  const condition = random() < 0.04 ? conditions[4] : pick(random, conditions.slice(0, 4));
  const grade = condition?.grade ?? 'good';
  const note = pick(random, condition?.notes ?? ['']);
  const price =
    Math.round(
      (model.price * ({ excellent: 1.15, 'very-good': 1, good: 0.82, fair: 0.6, parts: 0.25 }[grade as string] ?? 1)) /
        100,
    ) *
      100 -
    5;
  const isLens = model.kind === 'lens';
  const focal = /^\d+ mm/.exec(model.model)?.[0] ?? '';
  return {
    fields: {
      sku: `${isLens ? 'L' : 'C'}${1 + (index % 9)}-${String(24_000 + index * 37)}`,
      title: `${model.brand} ${model.model} ${colour} ${model.what}, ${model.decade}, tested and working`.replace(
        ', tested and working',
        grade === 'parts' ? ', for parts' : ', tested and working',
      ),
      brand: model.brand,
      model: model.model,
      category: model.category,
      condition: grade,
      conditionNote: note,
      description: `<p>${capital(model.what)} by <b>${model.brand.replace('&', '&amp;')}</b> from the ${model.decade}, in ${colour}. Checked on our bench in Osterlund with a test film before it is offered.</p><p>What you see is what you get:</p><ul><li>${model.brand.replace('&', '&amp;')} ${model.model}${isLens ? '' : ' body'}</li>${isLens ? '<li>Rear cap</li>' : '<li>Body cap or lens as pictured</li><li>Wrist strap</li>'}</ul><p>We pack in card and paper, never in foam.</p>`,
      highlights: [
        `${model.decade} classic`,
        model.mount && model.mount !== 'Fixed' ? `${model.mount} mount` : 'Ready to load',
      ],
      keywords: [
        'film photography',
        'analogue',
        model.brand.toLowerCase(),
        isLens ? 'vintage lens' : 'vintage camera',
        model.decade,
        colour,
        'collectable',
        isLens ? 'manual focus' : 'tested camera',
        'gift for photographer',
      ],
      attributes: {
        Colour: capital(colour),
        ...(model.mount ? { 'Lens mount': model.mount } : {}),
        ...(model.format ? { 'Film format': model.format } : {}),
        ...(isLens ? { 'Focal length': focal, 'Largest aperture': model.model.replace(/^\d+ mm /, '') } : {}),
        Decade: model.decade,
      },
      price,
      retailPrice: null,
      cost: Math.round(price * (0.25 + random() * 0.3)),
      location: `${pick(random, ['A', 'B', 'C'])}${1 + Math.floor(random() * 8)}`,
      supplier: pick(random, ['Marrowby house clearance', 'Quay Street auction', 'Walk-in', 'Lindholm estate']),
      weightGrams: model.grams + 180,
      lengthMm: model.size[0],
      widthMm: model.size[1],
      heightMm: model.size[2],
    },
    quantity: 1,
    thing: { kind: model.kind, brand: model.brand, model: model.model, seed: index * 17 + 3, colour },
    views: [
      'front',
      'angle',
      'detail',
      ...(grade === 'good' || grade === 'fair' ? (['flaw'] as const) : []),
      ...(random() < 0.3 ? (['box'] as const) : []),
    ],
    boughtDaysAgo: 5 + Math.floor(random() * 500),
  };
}

type Stocked = {
  kind: Thing['kind'];
  brand: string;
  model: string;
  title: string;
  category: string;
  text?: string;
  grams: number;
  price: number;
  quantity: number;
  attributes: Record<string, string>;
  keywords: string[];
  barcode?: string;
  colour?: string;
  about: string;
};

const straps: Stocked[] = ['brown', 'black', 'green', 'blue', 'natural'].flatMap((colour, c) =>
  ['90 cm', '110 cm', '130 cm'].map((length, l) => ({
    kind: 'strap' as const,
    brand: 'Grainhouse',
    model: `Quay ${length}`,
    title: `Grainhouse Quay leather camera strap ${colour} ${length}, hand-stitched, engraving on request`,
    category: 'straps',
    grams: 90,
    price: 3900 + l * 300,
    quantity: 3 + ((c * 3 + l * 5) % 11),
    colour,
    attributes: {
      Material: 'Leather',
      Colour: colour === 'natural' ? 'Brown' : capital(colour),
      Length: length,
      Decade: 'made to order',
      Maker: 'I made it',
      Materials: 'leather, brass, waxed thread',
      'Personalisation prompt': 'Up to eight letters for the tab',
    },
    keywords: [
      'camera strap',
      'leather strap',
      'handmade',
      'engraved',
      colour,
      'photographer gift',
      'neck strap',
      'film camera strap',
    ],
    about: 'Cut from one hide, stitched by hand above the harbour of Osterlund. Brass rings, waxed thread.',
  })),
);

const films: Stocked[] = [
  ['Saltmark', 'Harbour 200', 'colour', '35 mm', '200', 1290],
  ['Saltmark', 'Harbour 400', 'colour', '35 mm', '400', 1490],
  ['Saltmark', 'Harbour 400 medium', 'colour', '120', '400', 1390],
  ['Noctal', 'Pan 100', 'black-and-white', '35 mm', '100', 990],
  ['Noctal', 'Pan 400', 'black-and-white', '35 mm', '400', 1050],
  ['Noctal', 'Pan 400 medium', 'black-and-white', '120', '400', 950],
  ['Noctal', 'Soot 3200', 'black-and-white', '35 mm', '3200', 1590],
].map(([brand, model, type, format, speed, price], index) => ({
  kind: 'film' as const,
  brand: String(brand),
  model: String(model),
  title: `${brand} ${model} ${type === 'colour' ? 'colour negative film' : 'black and white film'} ${format}, ISO ${speed}, single roll, fresh`,
  category: `film/${type}`,
  text: `${format} · ISO ${speed}`,
  grams: 40,
  price: Number(price),
  quantity: 14 + index * 9,
  barcode: withCheckDigit(`20${4_400_000_010 + index}`),
  attributes: {
    'Film format': String(format),
    'Film speed': `ISO ${speed}`,
    Exposures: format === '120' ? '12' : '36',
    Decade: '2020s',
    'Supply or finished': 'Supply or tool',
  },
  keywords: [
    'film',
    `${format} film`,
    String(brand).toLowerCase(),
    'analogue',
    'camera film',
    type === 'colour' ? 'colour film' : 'black and white film',
    `iso ${speed}`,
  ],
  about: 'Kept cold from the factory to the parcel. Several rolls travel for the same postage.',
}));

const others: Stocked[] = [
  ...[1, 2, 3, 4, 5].map((n) => ({
    kind: 'outfit' as const,
    brand: 'Kaskett',
    model: `Outfit ${n}`,
    title: `Kaskett darkroom outfit ${n}: developing tank, trays, bottles and paper, everything to begin with`,
    category: 'darkroom/outfits',
    grams: 4200,
    price: 6900 + n * 1100,
    quantity: 1,
    attributes: {
      Contents: 'tank, 3 trays, bottle, paper',
      'Film format': '35 mm',
      Material: 'Plastic',
      Decade: '1980s',
    },
    keywords: ['darkroom', 'developing tank', 'film developing', 'darkroom kit', 'photo trays'],
    about: 'A whole darkroom in one parcel, complete with paper and instructions.',
  })),
  ...['P1', 'P3', 'Studio'].map((model, n) => ({
    kind: 'meter' as const,
    brand: 'Fennick',
    model,
    title: `Fennick ${model} selenium light meter with leather case`,
    category: 'meters',
    grams: 210,
    price: 3500 + n * 1500,
    quantity: 1,
    attributes: { Model: model, Colour: 'Black', Decade: '1960s' },
    keywords: ['light meter', 'exposure meter', 'selenium', 'vintage', 'film photography'],
    about: 'Needle moves freely and agrees with a modern meter within a stop.',
  })),
  ...['brown', 'black', 'green'].map((colour, n) => ({
    kind: 'bag' as const,
    brand: 'Grainhouse',
    model: 'Pier',
    title: `Grainhouse Pier ${colour} leather camera bag for one body and two lenses`,
    category: 'bags',
    grams: 900,
    price: 12900,
    quantity: 2 + n,
    colour,
    attributes: { Material: 'Leather', Colour: capital(colour), Decade: 'made to order', Maker: 'I made it' },
    keywords: ['camera bag', 'leather bag', 'handmade', colour, 'photographer gift'],
    about: 'Felt inside, brass lock, one long strap. Made here.',
  })),
  ...[
    'Brask K-2 instruction manual',
    'Orvane M4 repair manual',
    'Tessaly IIIc instruction manual',
    'The Small Darkroom handbook',
    'Light without Meters pocket guide',
    'Coast and Grain photography book',
  ].map((model, n) => ({
    kind: 'book' as const,
    brand: n < 3 ? (model.split(' ')[0] ?? '') : 'Quay Press',
    model,
    title: `${model}, ${n < 3 ? 'original printing, illustrated' : 'hardback with dust jacket'}`,
    category: n < 5 ? 'books/manuals' : 'books/photography',
    grams: 320,
    price: 1400 + n * 450,
    quantity: 1,
    barcode: withCheckDigit(`9797${44_000_017 + n}`),
    attributes: {
      Language: 'English',
      Format: n < 3 ? 'Leaflet' : 'Hardback',
      Author: n < 3 ? '' : 'R. Lindholm',
      Decade: n < 3 ? '1970s' : '1980s',
    },
    keywords: ['photography book', 'camera manual', 'instruction book', 'film photography'],
    about: 'Clean pages, a name in pencil inside the cover.',
  })),
  ...[
    'Mast at low water',
    'Two hills, fog',
    'Harbour, first light',
    'Ropewalk',
    'Lantern Street',
    'Breakwater',
    'Salt store',
  ].map((model, n) => ({
    kind: 'print' as const,
    brand: 'Grainhouse',
    model,
    title: `Framed photographic print “${model}”, darkroom print, signed, 40 × 50 cm`,
    category: 'prints/framed',
    grams: 2300,
    price: 8900 + (n % 3) * 2000,
    quantity: 1 + (n % 4),
    attributes: {
      Subject: ['Sea', 'Landscape', 'Harbour', 'Town', 'Town', 'Sea', 'Harbour'][n] ?? 'Other',
      Width: '50 cm',
      Height: '40 cm',
      Material: 'Wood',
      Colour: 'Brown',
      Decade: 'made to order',
      Maker: 'I made it',
    },
    keywords: ['photo print', 'black and white print', 'framed print', 'wall art', 'harbour', 'signed print'],
    about: 'Printed by hand on fibre paper from our own negatives, in an oak frame.',
  })),
];

function stocked(one: Stocked, index: number): DemoItem {
  const attributes = Object.fromEntries(Object.entries(one.attributes).filter(([, value]) => value !== ''));
  return {
    fields: {
      sku: `${{ strap: 'S', film: 'F', outfit: 'D', meter: 'M', bag: 'B', book: 'R', print: 'P' }[one.kind as string] ?? 'X'}-${String(300 + index * 3)}`,
      title: one.title,
      brand: one.brand,
      model: one.model,
      category: one.category,
      condition: one.kind === 'outfit' || one.kind === 'meter' || one.kind === 'book' ? 'very-good' : 'new',
      conditionNote: one.kind === 'outfit' ? 'Tank watertight, trays stained from use. See the photos.' : '',
      description: `<p>${one.about}</p><ul>${Object.entries(attributes)
        .slice(0, 4)
        .map(([name, value]) => `<li>${name}: ${value}</li>`)
        .join('')}</ul>`,
      highlights: [],
      keywords: one.keywords,
      attributes,
      price: one.price,
      cost: Math.round(one.price * 0.42),
      barcode: one.barcode ?? '',
      location: `${one.category.slice(0, 1).toUpperCase()}${1 + (index % 6)}`,
      supplier: one.brand === 'Grainhouse' ? 'Own workshop' : 'Quay Street wholesale',
      weightGrams: one.grams + 60,
      lengthMm: 240,
      widthMm: 160,
      heightMm: 60,
    },
    quantity: one.quantity,
    thing: {
      kind: one.kind,
      brand: one.brand,
      model: one.model,
      seed: index * 29 + 5,
      colour: one.colour,
      text: one.text,
    },
    views: one.kind === 'film' || one.kind === 'book' ? ['front', 'angle'] : ['front', 'angle', 'detail'],
    boughtDaysAgo: 20 + ((index * 41) % 480),
  };
}

/** Grainhouse's stock: about 120 things, the same each time. */
export function catalogue(): DemoItem[] {
  const singles = [
    ...cameras,
    ...cameras,
    ...cameras,
    ...cameras,
    ...lenses,
    ...lenses,
    ...lenses,
    ...lenses,
    ...lenses,
    ...cameras.slice(0, 6),
    ...lenses.slice(0, 4),
  ].map(used);
  return [...singles, ...[...straps, ...films, ...others].map(stocked)];
}
