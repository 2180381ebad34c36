import { z } from 'zod';
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
import type { LabelSize } from './size';
import { linesOf, sizeFor, textBlock } from './text';

export const labelKinds = ['item', 'price', 'shelf', 'command'] as const;
export const labelKindSchema = z.enum(labelKinds);
/** Of an item what it is and where it lies; a price to be put on it; a place on a shelf; a command for the scan field. */
export type LabelKind = z.infer<typeof labelKindSchema>;

/** What a label says. */
export type LabelWords = {
  kind: LabelKind;
  /** The text of its code. */
  code: string;
  /** Read first, large: a title, a place, a command. */
  title: string;
  /** Beside it, small: condition and place. */
  facts: string[];
  /** As people read it; empty for none. */
  price: string;
};

type Square = Extract<BarcodeSymbol, { is: 'square' }>;
/** The same code both ways, made when it is asked for: whichever fits is taken. */
export type Symbols = { linear: () => Extract<BarcodeSymbol, { is: 'linear' }>; square: () => Square };

const pad = 1.5;
const gap = 0.8;
/** Bars of a height that is hit by hand, and two lines of words. */
const leastForBars = 18;

/**
 * Draws a label: bars where they can be wide enough, else a square beside the words; the words as large as they fit.
 * @param prefers the code that is wanted; the other one is taken where it cannot be read at this size
 * @returns marks in millimetres, or null where neither can be read at this size
 */
export function drawLabel(
  size: Pick<LabelSize, 'widthMm' | 'heightMm'>,
  words: LabelWords,
  symbols: Symbols,
  measure: Measure,
  prefers: 'linear' | 'square' = 'linear',
): Mark[] | null {
  const { widths } = symbols.linear();
  const bar = barWidth(widths, size.widthMm);
  if (bar !== null && prefers === 'linear' && size.heightMm >= leastForBars)
    return withBars(size, words, widths, bar, measure);
  const square = symbols.square();
  // Its own white is all the edge that it needs.
  const largestSquare = Math.min(size.heightMm, size.widthMm * 0.55);
  const module = moduleWidth(square.side, largestSquare);
  if (module !== null) return withSquare(size, words, square, module, measure);
  return bar !== null && size.heightMm >= leastForBars ? withBars(size, words, widths, bar, measure) : null;
}

/** Bars above, then the code in plain signs, then the words. */
function withBars(
  { widthMm, heightMm }: Pick<LabelSize, 'widthMm' | 'heightMm'>,
  words: LabelWords,
  widths: readonly number[],
  module: number,
  measure: Measure,
): Mark[] {
  const width = widthMm - 2 * pad;
  const small = Math.min(3.2, Math.max(2.1, heightMm * 0.09));
  const barHeight = Math.max(6, Math.min(heightMm * 0.34, 20));
  const bars = barsIn(widths, module, { x: 0, y: pad, width: widthMm, height: barHeight });
  const isLong = words.kind === 'command';
  const code = isLong ? '' : words.code;
  const codeSize = sizeFor(code, width, small * 1.1, 1.6, measure);
  const codeAt = (width - measure(code) * codeSize) / 2 + pad;
  const below = pad + barHeight + gap + (code ? codeSize : 0);
  const marks: Mark[] = [bars];
  if (code)
    marks.push({ is: 'text', x: Math.max(pad, codeAt), y: below - codeSize * 0.14, size: codeSize, text: code });
  return [
    ...marks,
    ...wordsIn({ x: pad, y: below + gap, width, height: heightMm - pad - below - gap }, words, measure),
  ];
}

/** The square to the left, the code in plain signs and the words beside it. */
function withSquare(
  { widthMm, heightMm }: Pick<LabelSize, 'widthMm' | 'heightMm'>,
  words: LabelWords,
  square: Square,
  module: number,
  measure: Measure,
): Mark[] {
  const side = squareSide(square.side, module);
  const x = side + gap;
  const width = widthMm - x - pad;
  const mark = squareAt(square, module, 0, (heightMm - side) / 2);
  const codeSize = sizeFor(words.code, width, 2.8, 1.3, measure);
  const code = words.kind === 'command' ? [] : linesOf(words.code, width, 2, codeSize, measure);
  const block = textBlock(code, codeSize, { x, y: pad, width });
  return [
    mark,
    ...block.marks,
    ...wordsIn({ x, y: block.below, width, height: heightMm - pad - block.below }, words, measure),
  ];
}

type Box = { x: number; y: number; width: number; height: number };

/** Title, facts and price in what is left of the label: the last lines give way first. */
function wordsIn(box: Box, words: LabelWords, measure: Measure): Mark[] {
  const isLarge = words.kind !== 'item';
  const factSize = Math.min(2.6, Math.max(1.8, box.height * 0.16));
  const facts = words.facts.filter(Boolean).join(' · ');
  const price = words.price;
  const foot =
    (facts || (price && words.kind === 'item') ? factSize * 1.25 : 0) +
    (words.kind === 'price' ? box.height * 0.45 : 0);
  const room = box.height - foot;
  const largest = isLarge ? Math.min(9, room * 0.7) : Math.min(3.4, Math.max(2, room * 0.42));
  const titleSize = isLarge ? sizeFor(words.title, box.width, largest, 2.2, measure) : largest;
  const most = Math.max(0, Math.floor(room / (titleSize * 1.18) + 0.01));
  const title = linesOf(words.title, box.width, most, titleSize, measure);
  const block = textBlock(title, titleSize, box);
  const marks = [...block.marks];
  const baseLine = box.y + box.height - factSize * 0.2;
  if (words.kind === 'price' && price) {
    const size = sizeFor(price, box.width, box.height * 0.45, 2.5, measure);
    marks.push({ is: 'text', x: box.x, y: baseLine - (facts ? factSize * 1.6 : 0), size, text: price });
  }
  if (facts || (price && words.kind === 'item')) {
    const shownPrice = words.kind === 'item' ? price : '';
    const priceWide = shownPrice ? measure(shownPrice) * factSize : 0;
    const [line = ''] = linesOf(facts, box.width - priceWide - (priceWide ? gap : 0), 1, factSize, measure);
    if (line) marks.push({ is: 'text', x: box.x, y: baseLine, size: factSize, text: line });
    if (shownPrice)
      marks.push({ is: 'text', x: box.x + box.width - priceWide, y: baseLine, size: factSize, text: shownPrice });
  }
  return marks;
}
