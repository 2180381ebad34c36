import type { Box } from './layer';
import { gridSide, type PhotoLook } from './look';
import { type Crop, type PhotoRecipe, turnedSize } from './recipe';

export type Sides = { width: number; height: number };

/** A point of the original, in fractions, as it lies in the turned picture, in fractions. */
function turnedPoint(x: number, y: number, { width, height }: Sides, degrees: number): [number, number] {
  const angle = (degrees * Math.PI) / 180;
  const box = turnedSize(width, height, degrees);
  const [dx, dy] = [(x - 0.5) * width, (y - 0.5) * height];
  return [
    0.5 + (dx * Math.cos(angle) - dy * Math.sin(angle)) / box.width,
    0.5 + (dx * Math.sin(angle) + dy * Math.cos(angle)) / box.height,
  ];
}

/** The box around a box of the original once the picture is turned, in fractions of the turned one. */
export function turnedBox({ x, y, width, height }: Box, sides: Sides, degrees: number): Box {
  const corners = [
    [x, y],
    [x + width, y],
    [x, y + height],
    [x + width, y + height],
  ].map(([u = 0, v = 0]) => turnedPoint(u, v, sides, degrees));
  const [us, vs] = [corners.map(([u]) => u), corners.map(([, v]) => v)];
  const [left, top] = [Math.max(0, Math.min(...us)), Math.max(0, Math.min(...vs))];
  return { x: left, y: top, width: Math.min(1, Math.max(...us)) - left, height: Math.min(1, Math.max(...vs)) - top };
}

/** The same of the part that is kept of the turned one; null where nothing of it is kept. */
export function keptBox(box: Box, crop: Crop | null): Box | null {
  if (!crop) return box;
  const left = Math.max(0, (box.x - crop.x) / crop.width);
  const top = Math.max(0, (box.y - crop.y) / crop.height);
  const right = Math.min(1, (box.x + box.width - crop.x) / crop.width);
  const bottom = Math.min(1, (box.y + box.height - crop.y) / crop.height);
  return right > left && bottom > top ? { x: left, y: top, width: right - left, height: bottom - top } : null;
}

/** What the picture that a recipe makes shows in front, as a box in fractions of it. */
export const boxThrough = (
  look: Pick<PhotoLook, 'box'>,
  sides: Sides,
  { turn, crop }: Pick<PhotoRecipe, 'turn' | 'crop'>,
): Box | null => look.box && keptBox(turnedBox(look.box, sides, turn), crop);

const isFront = (grid: string, x: number, y: number): boolean => {
  const at =
    Math.min(gridSide - 1, Math.max(0, Math.floor(y * gridSide))) * gridSide +
    Math.min(gridSide - 1, Math.max(0, Math.floor(x * gridSide)));
  return ((Number.parseInt(grid[at >> 2] ?? '0', 16) >> (3 - (at & 3))) & 1) === 1;
};

/** Points looked at on each side of a box. */
const points = 12;

/**
 * How much of a box on the picture that a recipe makes lies over what stands in front, 0 to 1. What cannot be told apart
 * from its backdrop is covered by nothing.
 * @param box in pixels of the made picture, whose sides are `made`
 */
export function coveredShare(
  look: Pick<PhotoLook, 'front' | 'box'>,
  sides: Sides,
  { turn, crop }: Pick<PhotoRecipe, 'turn' | 'crop'>,
  box: Box,
  made: Sides,
): number {
  if (!look.box) return 0;
  const turned = turnedSize(sides.width, sides.height, turn);
  const angle = (-turn * Math.PI) / 180;
  let front = 0;
  for (let row = 0; row < points; row++)
    for (let column = 0; column < points; column++) {
      const u = (box.x + (box.width * (column + 0.5)) / points) / made.width;
      const v = (box.y + (box.height * (row + 0.5)) / points) / made.height;
      const dx = ((crop ? crop.x + u * crop.width : u) - 0.5) * turned.width;
      const dy = ((crop ? crop.y + v * crop.height : v) - 0.5) * turned.height;
      const x = 0.5 + (dx * Math.cos(angle) - dy * Math.sin(angle)) / sides.width;
      const y = 0.5 + (dx * Math.sin(angle) + dy * Math.cos(angle)) / sides.height;
      if (x >= 0 && x < 1 && y >= 0 && y < 1 && isFront(look.front, x, y)) front++;
    }
  return front / (points * points);
}

/** From this share on a badge is told to cover the thing. */
export const coversFrom = 0.12;
