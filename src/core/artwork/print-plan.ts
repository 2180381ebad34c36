import type { Area, Picture, Placing } from './place';
import { placeOn } from './place';

type Sides = { width: number; height: number };
type Box = Sides & { x: number; y: number };

/** No printable has more pixels than this, whatever measure is asked for. */
const mostPixels = 120_000_000;

/** Where no colour is printed under a picture. */
export const noBackground = '-';

/**
 * How a printable is made of a picture, in pixels: what is cut out of it, how large the file is, where that lies in it
 * (before it is turned about its middle), by how many degrees it is turned, what is printed under it, in which colour
 * profile and at how many dots an inch. The same plan gives the same file.
 */
export type PrintPlan = {
  cut: Box;
  canvas: Sides;
  at: Box;
  degrees: number;
  /** `#rrggbb`, or `-` for nothing. */
  background: string;
  profile: Area['profile'];
  dots: number;
};

const box = ({ x, y, width, height }: Box) => `${x},${y},${width},${height}`;

/** A plan as a word; equal plans are equal words. */
export const planWord = ({ cut, canvas, at, degrees, background, profile, dots }: PrintPlan): string =>
  [box(cut), `${canvas.width},${canvas.height}`, box(at), degrees, background, profile, dots].join('_');

const form =
  /^(\d+),(\d+),(\d+),(\d+)_(\d+),(\d+)_(-?\d+),(-?\d+),(\d+),(\d+)_(-?\d+(?:\.\d)?)_(-|#[0-9a-f]{6})_(srgb|p3)_(\d+)$/;

/** The plan that a word says; null where it says none. */
export function readPlan(word: string): PrintPlan | null {
  const read = form.exec(word);
  if (!read) return null;
  const n = (index: number) => Number(read[index]);
  return {
    cut: { x: n(1), y: n(2), width: n(3), height: n(4) },
    canvas: { width: n(5), height: n(6) },
    at: { x: n(7), y: n(8), width: n(9), height: n(10) },
    degrees: n(11),
    background: read[12] ?? noBackground,
    profile: read[13] === 'p3' ? 'p3' : 'srgb',
    dots: n(14),
  };
}

/**
 * The printable of a picture on an area, bleed included. Pixels are never invented: a picture that is too small for the
 * area's own measure makes a smaller file of the same shape.
 */
export function printPlan(area: Area, picture: Picture, placing: Placing, background: string | null): PrintPlan {
  const placed = placeOn(area, picture, placing);
  const visible = picture.visible.box;
  const left = Math.min(picture.width - 1, Math.floor(visible.x * picture.width));
  const top = Math.min(picture.height - 1, Math.floor(visible.y * picture.height));
  const cut = {
    x: left,
    y: top,
    width: Math.max(1, Math.min(picture.width - left, Math.ceil(visible.width * picture.width))),
    height: Math.max(1, Math.min(picture.height - top, Math.ceil(visible.height * picture.height))),
  };
  const full = area.widthPx / area.widthMm;
  const bleed = area.bleedMm;
  const whole = (area.widthMm + 2 * bleed) * (area.heightMm + 2 * bleed);
  const perMm = Math.min(full, cut.width / placed.width, Math.sqrt(mostPixels / whole));
  // No minus zero: equal plans are equal words.
  const px = (mm: number) => Math.round(mm * perMm) + 0;
  // Where theirs are no squares, as many of them downwards as make the same millimetres.
  const down = area.heightPx / area.heightMm / full;
  const pxDown = (mm: number) => Math.round(mm * perMm * down) + 0;
  return {
    cut,
    canvas: {
      width: Math.max(1, px(area.widthMm + 2 * bleed)),
      height: Math.max(1, pxDown(area.heightMm + 2 * bleed)),
    },
    at: {
      x: px(placed.x + bleed),
      y: pxDown(placed.y + bleed),
      width: Math.max(1, px(placed.width)),
      height: Math.max(1, pxDown(placed.height)),
    },
    degrees: Math.round(placed.degrees * 10) / 10 + 0,
    background: background ?? noBackground,
    profile: area.profile,
    dots: Math.max(1, Math.round(perMm * 25.4)),
  };
}
