import type { Product } from '../kit/products';

type Row = [name: string, kind: string, about: number, grams: number, ...finishes: string[]];

/** What is in darkroom outfits, each in the finishes in which it was made. */
const rows: Row[] = [
  ['Developing tank', 'tank', 1_400, 420, 'black'],
  ['Tank reel', 'tank', 380, 60, 'plain', 'colour'],
  ['Tank lid', 'tank', 260, 45, 'black'],
  ['Tray 13 × 18', 'trays', 240, 160, 'plain', 'colour', 'black'],
  ['Tray 18 × 24', 'trays', 340, 310, 'plain', 'colour', 'black'],
  ['Tray 24 × 30', 'trays', 520, 480, 'plain', 'colour', 'black'],
  ['Print tongs', 'trays', 190, 30, 'plain', 'colour', 'chrome'],
  ['Film clip', 'trays', 60, 12, 'plain', 'chrome'],
  ['Chemical bottle 0.5 l', 'trays', 150, 60, 'plain', 'black'],
  ['Chemical bottle 1 l', 'trays', 180, 90, 'plain', 'black'],
  ['Bottle cap', 'trays', 40, 4, 'black', 'colour'],
  ['Measuring beaker 100 ml', 'trays', 170, 40, 'plain'],
  ['Measuring beaker 600 ml', 'trays', 260, 95, 'plain'],
  ['Funnel', 'trays', 120, 35, 'plain', 'colour'],
  ['Stirring rod', 'trays', 70, 15, 'plain', 'black'],
  ['Tray thermometer', 'trays', 420, 55, 'chrome', 'plain'],
  ['Print squeegee', 'trays', 310, 140, 'black'],
  ['Masking frame 18 × 24', 'trays', 1_600, 900, 'chrome', 'black'],
  ['Negative mask 35 mm', 'enlarger', 450, 70, 'black'],
  ['Negative mask 6 × 6', 'enlarger', 520, 85, 'black'],
  ['Condenser', 'enlarger', 1_150, 260, 'chrome'],
  ['Contrast filter', 'enlarger', 210, 6, 'colour'],
  ['Lens panel', 'enlarger', 640, 110, 'chrome', 'black'],
  ['Safelight lamp', 'safelight', 880, 350, 'black', 'chrome'],
  ['Safelight screen', 'safelight', 330, 80, 'colour'],
  ['Mains plug', 'safelight', 90, 40, 'black', 'plain'],
  ['Focus magnifier', 'enlarger', 1_250, 180, 'chrome'],
  ['Film dryer weight', 'trays', 80, 50, 'chrome'],
  ['Drying peg', 'trays', 30, 5, 'plain', 'colour'],
  ['Instruction leaflet', 'manual', 120, 30, 'plain'],
  ['Exposure table', 'manual', 90, 12, 'plain'],
  ['Tray set', 'outfit', 1_100, 1_000, 'plain'],
];

type Entry = Product & { finishes: string[] };

/** The parts of outfits as entries of the catalogue; an entry has the same number in every finish. */
export const partEntries: Entry[] = rows.map(([name, kind, about, grams, ...finishes], index) => ({
  id: `LB${9_001 + index}`,
  gtin: null,
  isbn: null,
  brand: 'Kaskett',
  model: name,
  name: `Kaskett ${name}`,
  kind,
  about,
  grams,
  sides: [180, 120, 60],
  finishes,
}));

export type ContentsLine = {
  entry: string;
  name: string;
  finish: string;
  quantity: number;
  grams: number;
  /** What kind of thing it is. */
  sort: string;
  spare: boolean;
  paper: boolean;
  box: boolean;
  /** It has contents of its own. */
  set: boolean;
};

const sorts: Record<string, string> = {
  tank: 'Tanks',
  trays: 'Trays and bottles',
  enlarger: 'Enlarger parts',
  safelight: 'Safelights',
  manual: 'Papers',
  outfit: 'Sets',
};

const lineOf = (entry: Entry, finish: string, quantity: number, more: Partial<ContentsLine> = {}): ContentsLine => ({
  entry: entry.id,
  name: entry.name,
  finish,
  quantity,
  grams: entry.grams,
  sort: sorts[entry.kind] ?? '',
  spare: false,
  paper: entry.kind === 'manual',
  box: false,
  set: entry.kind === 'outfit',
  ...more,
});

/** What a set is made of, with the spares that some boxes hold; nothing of what is no set. */
export function contentsOf({ model }: Pick<Product, 'model'>): ContentsLine[] {
  const trays = partEntries.filter((one) => one.model.startsWith('Tray ') && one.kind === 'trays');
  if (model === 'Tray set') return trays.slice(0, 3).map((tray) => lineOf(tray, 'plain', 1));
  const outfit = /^Outfit (\d)$/.exec(model);
  if (!outfit) return [];
  const size = Number(outfit[1]);
  const regular = partEntries.flatMap((entry, at) =>
    entry.finishes.map((finish, index) =>
      lineOf(entry, finish, 1 + ((at * 3 + index * 2 + size) % (entry.about < 250 ? 6 : 2))),
    ),
  );
  const spares = partEntries
    .filter((entry) => entry.about < 200 && entry.kind === 'trays')
    .map((entry) => lineOf(entry, entry.finishes[0] ?? 'plain', 1 + (size % 2), { spare: true }));
  return [...regular, ...spares];
}

/** Numbers that entries had once, and those that they have now. */
export const formerNumbers = [
  ['LB2031', 'LB4031'],
  ['LB2032', 'LB4032'],
  ...partEntries.slice(0, 12).map(({ id }) => [id.replace('LB9', 'LB7'), id] as const),
].map(([was, now]) => ({ was, now }));

type Told = { condition: string };

/** Sales and offers of what is made in several finishes say in which: by turns, the same each time. */
export const inFinishes = <T extends Told>(all: T[], entry: { finishes?: string[] }): (T & { finish?: string })[] => {
  const { finishes } = entry;
  return finishes ? all.map((one, index) => ({ ...one, finish: finishes[index % finishes.length] })) : all;
};
