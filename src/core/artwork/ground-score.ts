import { z } from 'zod';
import { contrastOf, luminanceOf, type Rgb } from './contrast';

/** Pixels of a picture, RGBA, row by row; small ones do. */
export type Raster = { pixels: Uint8Array | Uint8ClampedArray; width: number; height: number };

export const groundScoreSchema = z.object({
  /** The ground's name. */
  ground: z.string(),
  /** 0 (lost on it) to 100. */
  score: z.number(),
  why: z.string(),
});
export type GroundScore = z.infer<typeof groundScoreSchema>;

/** What is at least as strong as this is seen as a shape. Source: WCAG 2.2, 1.4.11 Non-text contrast. */
const wanted = 3;
/** From here on a picture reads well. */
export const readsWell = 50;
/** Less than this is not there. */
const visible = 128;

/** How much of what is wanted a contrast is: 0 for none, 1 from three to one on. */
const enough = (contrast: number): number => Math.min(1, (contrast - 1) / (wanted - 1));

const levels = 256;

/** How much of the outline, and of all that is visible, has which luminance; transparent parts are left out. */
export type Tones = { outline: number[]; within: number[]; isCut: boolean };

/**
 * What a picture has to say of any ground: its tones at the outline and within. The outline is what lies beside something
 * transparent, or at the picture's edge.
 */
export function tonesOf({ pixels, width, height }: Raster): Tones {
  const outline = Array<number>(levels).fill(0);
  const within = Array<number>(levels).fill(0);
  const isThere = (x: number, y: number) =>
    x >= 0 && y >= 0 && x < width && y < height && (pixels[(y * width + x) * 4 + 3] ?? 0) >= visible;
  let isCut = false;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      if (!isThere(x, y)) {
        isCut = true;
        continue;
      }
      const at = (y * width + x) * 4;
      const light = luminanceOf([pixels[at] ?? 0, pixels[at + 1] ?? 0, pixels[at + 2] ?? 0]);
      const level = Math.round(light * (levels - 1));
      within[level] = (within[level] ?? 0) + 1;
      if (!(isThere(x - 1, y) && isThere(x + 1, y) && isThere(x, y - 1) && isThere(x, y + 1)))
        outline[level] = (outline[level] ?? 0) + 1;
    }
  return { outline, within, isCut };
}

function shareOf(tones: readonly number[], ground: number): number {
  let [all, seen] = [0, 0];
  for (let level = 0; level < levels; level++) {
    const count = tones[level] ?? 0;
    all += count;
    seen += count * enough(contrastOf(level / (levels - 1), ground));
  }
  return all === 0 ? 0 : seen / all;
}

const percent = (share: number) => `${Math.round(share * 100)} %`;

/**
 * How well a picture reads on a ground: three fifths by its outline, two fifths by what lies within. One that fills its
 * whole area has no outline but its edge, and reads anywhere.
 */
export function scoreGround(tones: Tones, ground: { name: string; colour: Rgb }): GroundScore {
  const light = luminanceOf(ground.colour);
  const [outline, within] = [shareOf(tones.outline, light), shareOf(tones.within, light)];
  if (tones.within.every((count) => count === 0))
    return { ground: ground.name, score: 0, why: 'There is nothing to be seen in it' };
  if (!tones.isCut)
    return { ground: ground.name, score: 100, why: 'It fills its whole area: the ground is not seen within it' };
  const score = Math.round((0.6 * outline + 0.4 * within) * 100);
  const name = ground.name.toLowerCase();
  const why =
    outline < 0.15 && within < 0.15
      ? `${light > 0.5 ? 'Light on light' : 'Dark on dark'}: hardly anything stands out from ${name}`
      : outline < 0.5
        ? `${percent(1 - outline)} of its outline is lost on ${name}`
        : within < 0.3
          ? `Its outline stands out from ${name}, most of what is within it does not`
          : `${percent(outline)} of its outline and ${percent(within)} within stand out from ${name}`;
  return { ground: ground.name, score, why };
}
