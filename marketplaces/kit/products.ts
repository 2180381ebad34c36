/** A catalogue entry: something of which every piece is the same. */
export type Product = {
  id: string;
  gtin: string | null;
  isbn: string | null;
  brand: string;
  model: string;
  name: string;
  kind: string;
  /** A middling price in cents, from which past sales are drawn. */
  about: number;
  /** What it weighs, and its sides in millimetres, longest first. */
  grams: number;
  sides: [number, number, number];
};

/** Things of a kind are about as heavy and as large as each other. */
const measures: Record<string, [grams: number, ...sides: Product['sides']]> = {
  'colour-film': [35, 58, 40, 40],
  'bw-film': [35, 58, 40, 40],
  manual: [180, 210, 148, 8],
  'photo-book': [1_150, 300, 240, 25],
  slr: [870, 200, 140, 120],
  rangefinder: [640, 180, 110, 80],
  compact: [230, 130, 80, 60],
  folding: [720, 180, 110, 60],
  box: [560, 140, 120, 90],
  'slr-lens': [320, 110, 80, 80],
  'rf-lens': [240, 90, 70, 70],
  meter: [140, 110, 70, 40],
  outfit: [3_900, 480, 380, 260],
  strap: [110, 160, 110, 30],
  bag: [980, 360, 280, 160],
};

/** GTIN-13 and ISBN-13 alike: weights 1 and 3 by turns. */
export function withCheckDigit(twelve: string): string {
  const sum = [...twelve].reduce((total, digit, index) => total + Number(digit) * (index % 2 ? 3 : 1), 0);
  return `${twelve}${(10 - (sum % 10)) % 10}`;
}

/** Numbers for use inside shops begin with 20; no maker owns them. */
const gtin = (number: number) => withCheckDigit(`20${String(4_400_000_010 + number)}`);
/** A registration group that nobody has been given. */
const isbn = (number: number) => withCheckDigit(`9797${String(44_000_010 + number)}`);

type Row = [brand: string, model: string, name: string, kind: string, about: number];

const rows: Row[] = [
  ['Saltmark', 'Harbour 200', 'colour negative film 35 mm, 36 exposures', 'colour-film', 1_290],
  ['Saltmark', 'Harbour 400', 'colour negative film 35 mm, 36 exposures', 'colour-film', 1_490],
  ['Saltmark', 'Harbour 400 medium', 'colour negative film 120', 'colour-film', 1_390],
  ['Noctal', 'Pan 100', 'black and white film 35 mm, 36 exposures', 'bw-film', 990],
  ['Noctal', 'Pan 400', 'black and white film 35 mm, 36 exposures', 'bw-film', 1_050],
  ['Noctal', 'Pan 400 medium', 'black and white film 120', 'bw-film', 950],
  ['Noctal', 'Soot 3200', 'black and white film 35 mm, 36 exposures', 'bw-film', 1_590],
  ['Brask', 'Brask K-2 instruction manual', 'instruction manual, illustrated', 'manual', 1_400],
  ['Orvane', 'Orvane M4 repair manual', 'repair manual, illustrated', 'manual', 1_850],
  ['Tessaly', 'Tessaly IIIc instruction manual', 'instruction manual, illustrated', 'manual', 2_300],
  ['Quay Press', 'The Small Darkroom handbook', 'handbook, hardback', 'manual', 2_750],
  ['Quay Press', 'Light without Meters pocket guide', 'pocket guide, hardback', 'manual', 3_200],
  ['Quay Press', 'Coast and Grain photography book', 'photography book, hardback', 'photo-book', 3_650],
  ['Brask', 'K-2', '35 mm SLR film camera', 'slr', 14_900],
  ['Brask', 'K-5 Auto', '35 mm SLR film camera, aperture priority', 'slr', 18_900],
  ['Orvane', 'M4', 'mechanical 35 mm SLR film camera', 'slr', 22_900],
  ['Quillon', 'Reflex 500', '35 mm SLR film camera, screw mount', 'slr', 8_900],
  ['Tessaly', 'IIIc', 'coupled rangefinder camera', 'rangefinder', 34_900],
  ['Velmar', 'Lyra 35', 'rangefinder camera', 'rangefinder', 12_900],
  ['Kaskett', 'Pop 3', 'compact film camera', 'compact', 3_900],
  ['Fennick', 'Record 120', 'folding camera', 'folding', 9_900],
  ['Marlow & Finch', 'No. 2', 'box camera', 'box', 2_900],
  ['Brask', '28 mm f/2.8', 'wide-angle lens', 'slr-lens', 7_900],
  ['Brask', '135 mm f/3.5', 'long lens', 'slr-lens', 5_900],
  ['Orvane', '50 mm f/1.4', 'standard lens', 'slr-lens', 12_900],
  ['Tessaly', '35 mm f/2', 'wide-angle lens', 'rf-lens', 42_900],
  ['Noctal', '85 mm f/1.8', 'portrait lens', 'slr-lens', 15_900],
  ['Fennick', 'P1', 'selenium light meter', 'meter', 3_500],
  ['Fennick', 'P3', 'selenium light meter', 'meter', 5_000],
  ['Fennick', 'Studio', 'selenium light meter', 'meter', 6_500],
  ['Kaskett', 'Outfit 1', 'darkroom outfit', 'outfit', 8_000],
  ['Kaskett', 'Outfit 2', 'darkroom outfit', 'outfit', 9_100],
  ['Kaskett', 'Outfit 3', 'darkroom outfit', 'outfit', 10_200],
  ['Kaskett', 'Outfit 4', 'darkroom outfit', 'outfit', 11_300],
  ['Kaskett', 'Outfit 5', 'darkroom outfit', 'outfit', 12_400],
  ['Grainhouse', 'Quay 90 cm', 'leather camera strap', 'strap', 3_900],
  ['Grainhouse', 'Quay 110 cm', 'leather camera strap', 'strap', 4_200],
  ['Grainhouse', 'Quay 130 cm', 'leather camera strap', 'strap', 4_500],
  ['Grainhouse', 'Pier', 'leather camera bag', 'bag', 12_900],
];

const subjects = [
  'Harbours',
  'Lenses',
  'Shutters',
  'Islands',
  'Ferries',
  'Lighthouses',
  'Negatives',
  'Portraits',
  'Markets',
  'Winters',
  'Nights',
  'Bridges',
  'Dunes',
  'Railways',
  'Windows',
];
const manners = [
  'A Field Guide to',
  'Notes on',
  'The Little Book of',
  'A Year of',
  'Looking at',
  'Forty Pictures of',
  'The Repair of',
  'Printing',
  'A History of',
  'Letters about',
  'Walks among',
  'Light on',
];
/** A shelf of books, each with a number of its own: what a pile at a house clearance is like. */
const shelf = manners.flatMap((manner, at) =>
  subjects.map((subject, index): Row => {
    const isLarge = manner === 'Forty Pictures of' || manner === 'Light on';
    const words = isLarge ? 'photography book, hardback' : index % 2 ? 'paperback' : 'hardback';
    const press = ['Quay Press', 'Lantern Row', 'Saltmarsh Books'][(at + index) % 3] ?? 'Quay Press';
    return [
      press,
      `${manner} ${subject}`,
      words,
      isLarge ? 'photo-book' : 'manual',
      690 + ((at * 37 + index * 61) % 29) * 100,
    ];
  }),
);

/** The entries that catalogues of this world share, each under a marketplace's own numbers. */
export const products = (prefix: string): Product[] =>
  [...rows, ...shelf].map(([brand, model, name, kind, about], index) => {
    const [grams, ...sides] = measures[kind] ?? [500, 200, 150, 100];
    return {
      id: `${prefix}${String(4_001 + index)}`,
      gtin: kind.endsWith('film') ? gtin(index) : null,
      isbn: kind === 'manual' || kind === 'photo-book' ? isbn(index) : null,
      brand,
      model,
      name: brand && !model.startsWith(brand) ? `${brand} ${model} ${name}` : `${model}, ${name}`,
      kind,
      about,
      grams,
      sides,
    };
  });

const words = (text: string) =>
  text
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);

/** Entries by barcode or ISBN, or those whose words hold all words of a name. */
export function findProducts(all: Product[], query: { gtin?: string; isbn?: string; name?: string }): Product[] {
  if (query.gtin) return all.filter((one) => one.gtin === query.gtin);
  if (query.isbn) return all.filter((one) => one.isbn === query.isbn?.replace(/-/g, ''));
  const wanted = words(query.name ?? '');
  if (wanted.length === 0) return [];
  return all.filter((one) => {
    const said = new Set(words(`${one.brand} ${one.name}`));
    return wanted.every((word) => said.has(word));
  });
}

/** A seeded row of numbers between 0 and 1. */
function row(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
}

export type PastSale = { date: string; cents: number; quantity: number; condition: string; daysOnSale: number };

/** Single sales of an entry over the last 400 days: a slow trend, seasons, and the odd outlier. The same each time. */
export function pastSales(product: Product, now: number, conditions: string[]): PastSale[] {
  const next = row(Number(product.id.replace(/\D/g, '')) * 7_919);
  const count = 24 + Math.floor(next() * 60);
  const trend = (next() - 0.4) * 0.3;
  return Array.from({ length: count }, (_, index) => {
    const daysAgo = Math.floor((index / count) * 400 + next() * 4);
    const grade = Math.floor(next() * conditions.length);
    const spread = 0.82 + next() * 0.36;
    const odd = next() < 0.04 ? 2.6 : next() < 0.04 ? 0.3 : 1;
    const cents = product.about * spread * odd * (1.12 - grade * 0.12) * (1 - (trend * daysAgo) / 400);
    return {
      date: new Date(Math.floor(now / 86_400_000 - daysAgo) * 86_400_000).toISOString().slice(0, 10),
      cents: Math.max(50, Math.round(cents / 10) * 10),
      quantity: product.kind.endsWith('film') ? 1 + Math.floor(next() * 6) : 1,
      condition: conditions[grade] ?? '',
      daysOnSale: 1 + Math.floor(next() * next() * 60),
    };
  }).sort((a, b) => (a.date < b.date ? -1 : 1));
}

export type PresentOffer = { cents: number; quantity: number; condition: string; sinceDays: number };

/** The same where it is told who sends, and what that costs besides: a warehouse sends free from 20.00 on. */
export const offersWithDelivery = (product: Product, conditions: string[]) =>
  presentOffers(product, conditions).map(({ sinceDays: _since, ...offer }, index) => {
    const ships = index % 3 === 0 ? 'warehouse' : 'self';
    const delivery = ships === 'warehouse' ? (offer.cents >= 2_000 ? 0 : 299) : 390 + (index % 4) * 60;
    return { ...offer, ships, delivery };
  });

export function presentOffers(product: Product, conditions: string[]): PresentOffer[] {
  const next = row(Number(product.id.replace(/\D/g, '')) * 104_729);
  return Array.from({ length: 3 + Math.floor(next() * 9) }, () => ({
    cents: Math.round((product.about * (0.9 + next() * 0.5)) / 10) * 10,
    quantity: 1 + Math.floor(next() * 3),
    condition: conditions[Math.floor(next() * conditions.length)] ?? '',
    sinceDays: Math.floor(next() * 90),
  }));
}
