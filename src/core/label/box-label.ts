import {
  type BarcodeSymbol,
  barsIn,
  barWidth,
  type Mark,
  type Measure,
  moduleWidth,
  squareAt,
  squareSide,
} from './mark';
import { linesOf, sizeFor, textBlock } from './text';

/** A box on its way, as its labels tell it. */
export type BoxWords = {
  /** What stands in its barcode. */
  code: string;
  shipment: string;
  /** Which box of how many. */
  number: number;
  count: number;
  address: readonly string[];
  carrier: string;
  tracking: string;
  /** Weight and sides as people read them. */
  measures: string;
  contents: readonly { sku: string; units: number; title: string }[];
};

export const boxLabelSize = { widthMm: 101.6, heightMm: 152.4 };
const pad = 5;
const width = boxLabelSize.widthMm - 2 * pad;

const line = (text: string, y: number, size: number, measure: Measure): Mark => {
  const fitting = sizeFor(text, width, size, 2, measure);
  return { is: 'text', x: pad, y, size: fitting, text };
};

/** Bars as wide as they can be, with what they say below. */
function barsWithText(
  symbol: Extract<BarcodeSymbol, { is: 'linear' }>,
  text: string,
  box: { y: number; height: number },
  measure: Measure,
): Mark[] | null {
  const module = barWidth(symbol.widths, boxLabelSize.widthMm);
  if (module === null) return null;
  const size = sizeFor(text, width, 4, 2, measure);
  return [
    barsIn(symbol.widths, module, { x: 0, y: box.y, width: boxLabelSize.widthMm, height: box.height }),
    {
      is: 'text',
      x: (boxLabelSize.widthMm - measure(text) * size) / 2,
      y: box.y + box.height + size,
      size,
      text,
    },
  ];
}

/**
 * The label of a box, 4 × 6 inches: where it goes, which of how many it is, its code, and the carrier's number.
 * @returns marks in millimetres, or null where one of its codes cannot be read at this size
 */
export function drawBoxLabel(
  words: BoxWords,
  symbols: {
    code: Extract<BarcodeSymbol, { is: 'linear' }>;
    tracking: Extract<BarcodeSymbol, { is: 'linear' }> | null;
  },
  measure: Measure,
): Mark[] | null {
  const code = barsWithText(symbols.code, words.code, { y: 74, height: 26 }, measure);
  const way = symbols.tracking && barsWithText(symbols.tracking, words.tracking, { y: 116, height: 20 }, measure);
  if (code === null || (symbols.tracking && way === null)) return null;
  const address = textBlock(
    words.address.flatMap((one) => linesOf(one, width, 1, 5.4, measure)),
    5.4,
    { x: pad, y: 15, width },
  );
  return [
    line('To', 12, 3.4, measure),
    ...address.marks,
    line(`Box ${words.number} of ${words.count}`, 56, 13, measure),
    line([words.shipment, words.measures].filter(Boolean).join(' · '), 66, 4.2, measure),
    ...code,
    ...(way ?? []),
    ...(words.carrier ? [line(words.carrier, 147, 4, measure)] : []),
  ];
}

/** What a contents label says to a machine: box, then stock numbers with their units. */
export const contentsCode = ({ code, contents }: Pick<BoxWords, 'code' | 'contents'>): string =>
  [code, ...contents.map(({ sku, units }) => `${sku}*${units}`)].join(' ');

/**
 * What is in a box, on a label of 4 × 6 inches: a square that tells a machine, and lines that tell people. What does not fit
 * into the lines is counted below them.
 * @returns marks in millimetres, or null where the square would be too fine to be read
 */
export function drawContentsLabel(
  words: BoxWords,
  square: Extract<BarcodeSymbol, { is: 'square' }>,
  measure: Measure,
): Mark[] | null {
  const module = moduleWidth(square.side, 62);
  if (module === null) return null;
  const side = squareSide(square.side, module);
  const top = 20 + side + 4;
  const size = 3.4;
  const most = Math.floor((boxLabelSize.heightMm - top - pad) / (size * 1.18));
  const units = words.contents.reduce((sum, one) => sum + one.units, 0);
  const hasAll = words.contents.length <= most;
  const shown = words.contents.slice(0, hasAll ? most : most - 1);
  const lines = shown.flatMap(({ sku, units: count, title }) =>
    linesOf(`${count} × ${sku}  ${title}`, width, 1, size, measure),
  );
  if (!hasAll) lines.push(`and ${words.contents.length - shown.length} numbers more`);
  return [
    line(`Box ${words.number} of ${words.count} · ${units} ${units === 1 ? 'unit' : 'units'}`, 12, 7, measure),
    line(`${words.shipment} · ${words.code}`, 18, 3.6, measure),
    squareAt(square, module, (boxLabelSize.widthMm - side) / 2, 20),
    ...textBlock(lines, size, { x: pad, y: top, width }).marks,
  ];
}
