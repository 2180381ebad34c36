import type { PhotoLook } from './look';
import type { PhotoRecipe } from './recipe';

type Light = Pick<PhotoRecipe, 'brightness' | 'contrast' | 'warmth' | 'tint'>;

const bounded = (value: number, least: number, most: number) => Math.round(Math.max(least, Math.min(most, value)));

/** Bright parts are brought to this, and dark and bright parts so far apart. */
const white = 238;
const spread = 130;

/**
 * Light and colours as they follow from the picture itself: bright parts become nearly white, flat ones get contrast,
 * grey parts become grey. One that is well as it is gets nothing.
 */
export function lightByItself({ dark, bright, warmth, tint }: PhotoLook): Light {
  const from = Math.max(8, bright);
  // The same curve as `applyTone`: light is a power, and 66 is a stop.
  const power = from >= white ? 1 : Math.log(white / 255) / Math.log(from / 255);
  const brightness = from >= white ? 0 : bounded(-66 * Math.log2(power), 0, 85);
  const lit = (value: number) => 255 * (value / 255) ** (2 ** (-brightness / 66));
  const apart = lit(bright) - lit(dark);
  const contrast = apart >= spread ? 0 : bounded(((spread - apart) / spread) * 60, 0, 35);
  return { brightness, contrast, warmth: bounded(warmth, -60, 60), tint: bounded(tint, -60, 60) };
}
