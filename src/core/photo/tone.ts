import type { PhotoRecipe } from './recipe';

type Tone = Pick<PhotoRecipe, 'brightness' | 'contrast' | 'warmth' | 'tint'>;

const clamp = (value: number) => Math.max(0, Math.min(255, value));

/** What becomes of each of the 256 values of a channel: gain for the white balance, then light, then contrast about the middle. */
function curve(gain: number, { brightness, contrast }: Tone): Uint8ClampedArray {
  const values = new Uint8ClampedArray(256);
  // Light as a power keeps black black and white white; ±100 is about a stop and a half.
  const power = 2 ** (-brightness / 66);
  const slope = contrast >= 0 ? 1 + contrast / 60 : 1 + contrast / 140;
  for (let value = 0; value < 256; value++) {
    const lit = 255 * (clamp(value * gain) / 255) ** power;
    values[value] = Math.round(clamp((lit - 127.5) * slope + 127.5));
  }
  return values;
}

export const isPlainTone = ({ brightness, contrast, warmth, tint }: Tone): boolean =>
  brightness === 0 && contrast === 0 && warmth === 0 && tint === 0;

/** Light, contrast and white balance, in place. @param pixels RGBA, eight bits each; alpha is left alone */
export function applyTone(pixels: Uint8ClampedArray, tone: Tone): void {
  if (isPlainTone(tone)) return;
  const { warmth, tint } = tone;
  const red = curve(1 + warmth / 400 + tint / 600, tone);
  const green = curve(1 - tint / 400, tone);
  const blue = curve(1 - warmth / 400 + tint / 600, tone);
  for (let at = 0; at < pixels.length; at += 4) {
    pixels[at] = red[pixels[at] as number] as number; // within the array: the loop's own bound; tables have 256 values
    pixels[at + 1] = green[pixels[at + 1] as number] as number;
    pixels[at + 2] = blue[pixels[at + 2] as number] as number;
  }
}

/** White balance that makes a colour grey, such as that of a spot that a person calls grey. */
export function balanceOf(red: number, green: number, blue: number): { warmth: number; tint: number } {
  const mean = (red + green + blue) / 3;
  if (mean === 0) return { warmth: 0, tint: 0 };
  const within = (value: number) => Math.round(Math.max(-100, Math.min(100, value)));
  return { warmth: within(((blue - red) / (2 * mean)) * 400), tint: within((green / mean - 1) * 400) };
}

/**
 * White balance that makes the bright, nearly colourless part of the picture grey: proposed warmth and tint. A picture
 * without such a part gets none.
 */
export function proposeBalance(pixels: Uint8ClampedArray): { warmth: number; tint: number } {
  let red = 0;
  let green = 0;
  let blue = 0;
  let count = 0;
  for (let at = 0; at < pixels.length; at += 16) {
    const r = pixels[at] ?? 0;
    const g = pixels[at + 1] ?? 0;
    const b = pixels[at + 2] ?? 0;
    const high = Math.max(r, g, b);
    // Bright, not burnt out, and nearly grey: a wall, a sheet of paper, a grey card.
    if (high < 90 || high > 250 || high - Math.min(r, g, b) > 60) continue;
    red += r;
    green += g;
    blue += b;
    count++;
  }
  if (count < 20) return { warmth: 0, tint: 0 };
  return balanceOf(red, green, blue);
}
