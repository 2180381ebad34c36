/** What stands on a label, in millimetres from its upper left corner. */
export type Mark =
  /** Black rectangles: bars, or the modules of a code of squares. */
  | { is: 'bars'; bars: { x: number; y: number; width: number; height: number }[] }
  /** A line of text; `y` is its base line, `size` the height of an em. */
  | { is: 'text'; x: number; y: number; size: number; text: string };

/** Width of a text whose em is 1 high, in the same measure. */
export type Measure = (text: string) => number;

/** A code as it is to be drawn: widths of bars and spaces by turns, beginning with a bar, or a square of dark modules. */
export type BarcodeSymbol = { is: 'linear'; widths: number[] } | { is: 'square'; side: number; dark: boolean[] };

/** A printer of labels has eight dots a millimetre (203 dpi): bars that lie on them stay even. */
export const dotMm = 0.125;
/** Narrowest bars that cheap scanners read, and narrowest modules that cameras do. */
const leastBarMm = 0.25;
const leastModuleMm = 0.375;
/** White before and behind bars, and around squares, in modules. Source: ISO/IEC 15417 and 18004. */
const quietBars = 10;
const quietModules = 4;

const onDots = (mm: number) => Math.floor(mm / dotMm + 1e-9) * dotMm;

/** The width of a bar of one module, so that the code fits; null when it would be too narrow to be read. */
export function barWidth(widths: readonly number[], widthMm: number): number | null {
  const modules = widths.reduce((sum, one) => sum + one, 0) + 2 * quietBars;
  const module = Math.min(0.5, onDots(widthMm / modules));
  return module >= leastBarMm ? module : null;
}

/** Bars in the middle of a box. */
export function barsIn(
  widths: readonly number[],
  module: number,
  box: { x: number; y: number; width: number; height: number },
): Mark {
  const total = widths.reduce((sum, one) => sum + one, 0) * module;
  let x = onDots(box.x + (box.width - total) / 2);
  const bars = widths.flatMap((wide, index) => {
    const width = wide * module;
    const bar = { x, y: box.y, width, height: box.height };
    x += width;
    return index % 2 === 0 ? [bar] : [];
  });
  return { is: 'bars', bars };
}

/** The width of a module, so that the square fits with its white around it; null when it would be too small to be read. */
export function moduleWidth(side: number, sideMm: number): number | null {
  const module = Math.min(0.75, onDots(sideMm / (side + 2 * quietModules)));
  return module >= leastModuleMm ? module : null;
}

/** A code of squares from a corner, its white included. */
export function squareAt(symbol: Extract<BarcodeSymbol, { is: 'square' }>, module: number, x: number, y: number): Mark {
  const left = onDots(x) + quietModules * module;
  const top = onDots(y) + quietModules * module;
  const bars: Extract<Mark, { is: 'bars' }>['bars'] = [];
  for (let row = 0; row < symbol.side; row++)
    for (let column = 0; column < symbol.side; column++) {
      if (!symbol.dark[row * symbol.side + column]) continue;
      const last = bars.at(-1);
      const at = left + column * module;
      // Neighbours are one bar: no hair stands between them.
      if (last && last.y === top + row * module && Math.abs(last.x + last.width - at) < 1e-6) last.width += module;
      else bars.push({ x: at, y: top + row * module, width: module, height: module });
    }
  return { is: 'bars', bars };
}

export const squareSide = (side: number, module: number): number => (side + 2 * quietModules) * module;
