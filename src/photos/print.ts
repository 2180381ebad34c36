import sharp from 'sharp';
import type { PhotoPrint } from '../core/match';
import { mostPixels } from './limits';

/** Longest side of what a print is made from, and the sides of its two grids. */
const seen = 128;
const side = 32;
const low = 8;
const cells = 4;

type Pixels = { data: Uint8Array; width: number; height: number };

/** Cosines of the discrete cosine transform (type II), by frequency and place. */
const cosines = Array.from({ length: low + 1 }, (_, frequency) =>
  Float64Array.from({ length: side }, (_, at) => Math.cos(((2 * at + 1) * frequency * Math.PI) / (2 * side))),
);
const noWave = new Float64Array(side);

/** Whether a row or column is of one colour, the one of the corner: then it was added, not photographed. */
function isBlank({ data, width }: Pixels, places: Iterable<number>): boolean {
  for (const at of places)
    for (let channel = 0; channel < 3; channel++)
      if (Math.abs((data[at * 3 + channel] ?? 0) - (data[channel] ?? 0)) > 10) return false;
  return width > 0;
}

/** The part of a picture between bars that were added on two opposite sides to bring it into a shape. */
function withoutBars(pixels: Pixels): { left: number; top: number; right: number; bottom: number } {
  const { width, height } = pixels;
  const column = (x: number) => Array.from({ length: height }, (_, y) => y * width + x);
  const row = (y: number) => Array.from({ length: width }, (_, x) => y * width + x);
  const most = (length: number, line: (at: number) => number[]): [number, number] => {
    let [from, to] = [0, length];
    while (from < length / 3 && isBlank(pixels, line(from))) from++;
    while (to > (length * 2) / 3 && isBlank(pixels, line(to - 1))) to--;
    return from > 0 && to < length ? [from, to] : [0, length];
  };
  const [left, right] = most(width, column);
  const [top, bottom] = most(height, row);
  return { left, top, right, bottom };
}

/** Means over a grid of equal parts, of one channel or of the brightness. */
function gridOf(
  { data, width }: Pixels,
  box: ReturnType<typeof withoutBars>,
  parts: number,
  value: (at: number) => number,
): Float64Array {
  const grid = new Float64Array(parts * parts);
  const [wide, high] = [box.right - box.left, box.bottom - box.top];
  for (let v = 0; v < parts; v++)
    for (let u = 0; u < parts; u++) {
      const x0 = box.left + Math.floor((u * wide) / parts);
      const x1 = Math.max(x0 + 1, box.left + Math.floor(((u + 1) * wide) / parts));
      const y0 = box.top + Math.floor((v * high) / parts);
      const y1 = Math.max(y0 + 1, box.top + Math.floor(((v + 1) * high) / parts));
      let sum = 0;
      for (let y = y0; y < y1; y++) for (let x = x0; x < x1; x++) sum += value((y * width + x) * 3);
      grid[v * parts + u] = sum / ((x1 - x0) * (y1 - y0));
    }
  return data.length ? grid : grid;
}

/** A square grid turned by a quarter, clockwise. */
function turned(grid: Float64Array): Float64Array {
  const length = Math.sqrt(grid.length);
  const next = new Float64Array(grid.length);
  for (let y = 0; y < length; y++)
    for (let x = 0; x < length; x++) next[x * length + (length - 1 - y)] = grid[y * length + x] ?? 0;
  return next;
}

/** Low frequencies without the mean, each as whether it lies above the middle one; 64 bits as 16 hex digits. */
function bitsOf(grey: Float64Array): string {
  const rows = new Float64Array(side * low);
  for (let y = 0; y < side; y++)
    for (let u = 0; u < low; u++) {
      const wave = cosines[u + 1] ?? noWave;
      let sum = 0;
      for (let x = 0; x < side; x++) sum += (grey[y * side + x] ?? 0) * (wave[x] ?? 0);
      rows[y * low + u] = sum;
    }
  const values: number[] = [];
  for (let v = 0; v < low; v++)
    for (let u = 0; u < low; u++) {
      const wave = cosines[v + 1] ?? noWave;
      let sum = 0;
      for (let y = 0; y < side; y++) sum += (rows[y * low + u] ?? 0) * (wave[y] ?? 0);
      values.push(sum);
    }
  const middle = [...values].sort((a, b) => a - b)[values.length / 2] ?? 0;
  let hex = '';
  for (let at = 0; at < values.length; at += 4) {
    const nibble = values.slice(at, at + 4).reduce((sum, value) => sum * 2 + (value >= middle ? 1 : 0), 0);
    hex += nibble.toString(16);
  }
  return hex;
}

const hexOf = (value: number) => Math.min(255, Math.round(value)).toString(16).padStart(2, '0');

/**
 * A picture as numbers that stay nearly the same when it is packed anew, made smaller, cut a little, or filled up to a
 * shape: one for each way up. Each is 64 bits of its shapes and the colours of a grid of sixteen. Source of the bits: the
 * perceptual hash by the discrete cosine transform of a 32 × 32 grey picture (Zauner 2010).
 * @param under what is seen through its transparent parts
 * @throws when it cannot be read as a picture
 */
export async function photoPrint(bytes: Buffer, under = '#ffffff'): Promise<PhotoPrint> {
  const { data, info } = await sharp(bytes, { limitInputPixels: mostPixels, failOn: 'error' })
    .rotate()
    .flatten({ background: under })
    .resize(seen, seen, { fit: 'inside', fastShrinkOnLoad: true })
    .toColourspace('srgb')
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const pixels: Pixels = { data, width: info.width, height: info.height };
  const box = withoutBars(pixels);
  const channel = (offset: number) => (at: number) => data[at + offset] ?? 0;
  const brightness = (at: number) =>
    0.299 * (data[at] ?? 0) + 0.587 * (data[at + 1] ?? 0) + 0.114 * (data[at + 2] ?? 0);
  let grey = gridOf(pixels, box, side, brightness);
  let colours = [0, 1, 2].map((offset) => gridOf(pixels, box, cells, channel(offset)));
  const ways: string[] = [];
  for (let way = 0; way < 4; way++) {
    const [red, green, blue] = colours;
    const shades = Array.from({ length: cells * cells }, (_, at) => [red?.[at], green?.[at], blue?.[at]]);
    ways.push(
      bitsOf(grey) +
        shades
          .flat()
          .map((one) => hexOf(one ?? 0))
          .join(''),
    );
    grey = turned(grey);
    colours = colours.map(turned);
  }
  const [a = '', b = '', c = '', d = ''] = ways;
  return [a, b, c, d];
}
