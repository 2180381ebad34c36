import { z } from 'zod';
import type { Raster } from './ground-score';

const share = z.number().min(0).max(1);
export const visibleSchema = z.object({
  /** The part of the picture in which something is visible, as shares of its sides. */
  box: z.object({ x: share, y: share, width: share, height: share }),
  /** Where the weight of what is visible lies: what the eye takes for the middle. */
  centre: z.object({ x: share, y: share }),
});
export type Visible = z.infer<typeof visibleSchema>;

/** Less than this is a trace that nobody sees. */
const trace = 16;

/** What of a picture is visible; null where nothing is. */
export function visibleOf({ pixels, width, height }: Raster): Visible | null {
  let [left, top, right, bottom] = [width, height, -1, -1];
  let [mass, sumX, sumY] = [0, 0, 0];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const alpha = pixels[(y * width + x) * 4 + 3] ?? 0;
      if (alpha < trace) continue;
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
      mass += alpha;
      sumX += alpha * (x + 0.5);
      sumY += alpha * (y + 0.5);
    }
  if (right < 0) return null;
  return {
    box: {
      x: left / width,
      y: top / height,
      width: (right - left + 1) / width,
      height: (bottom - top + 1) / height,
    },
    centre: { x: sumX / mass / width, y: sumY / mass / height },
  };
}
