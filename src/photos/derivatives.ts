import sharp, { type Sharp } from 'sharp';
import { photoStore } from './store';

/** Sizes made of every photo: for the net's rows, for the sheet, and for marketplaces. Longest side in pixels. */
export const derivatives = {
  thumb: { side: 96, square: true },
  view: { side: 640, square: false },
  market: { side: 1600, square: false },
} as const;
export type Derivative = keyof typeof derivatives;

export const derivativeKey = (hash: string, name: Derivative): string =>
  `${hash}-${name}.${name === 'market' ? 'jpg' : 'webp'}`;

const open = (original: Buffer) => sharp(original, { limitInputPixels: 120_000_000, failOn: 'error' }).rotate();

/** One size of an upright picture. Longest side, or a square cut from the middle. */
function encode(upright: Sharp, name: Derivative): Promise<Buffer> {
  const { side, square } = derivatives[name];
  const sized = upright.resize(side, side, { fit: square ? 'cover' : 'inside', withoutEnlargement: !square });
  return name === 'market'
    ? sized.flatten({ background: '#ffffff' }).jpeg({ quality: 86 }).toBuffer()
    : sized.webp({ quality: 78, effort: 2 }).toBuffer();
}

/** Every size of a new photo. The large file is read once; the smaller sizes are made from the largest one. */
export async function makeDerivatives(hash: string, original: Buffer): Promise<void> {
  const { side } = derivatives.market;
  const { data, info } = await open(original)
    .resize(side, side, { fit: 'inside', withoutEnlargement: true })
    .raw()
    .toBuffer({ resolveWithObject: true });
  const raw = { width: info.width, height: info.height, channels: info.channels };
  const names = Object.keys(derivatives) as Derivative[]; // keys of the constant above
  await Promise.all(
    names.map(async (name) => photoStore.write(derivativeKey(hash, name), await encode(sharp(data, { raw }), name))),
  );
}

/** Takes back what was made of a picture that turned out to be damaged. */
export const removeDerivatives = (hash: string): Promise<unknown> =>
  Promise.all((Object.keys(derivatives) as Derivative[]).map((name) => photoStore.remove(derivativeKey(hash, name)))); // keys of the constant above

/** A derivative's bytes; made from the original when it is not there yet. */
export async function readDerivative(hash: string, name: Derivative): Promise<Buffer> {
  const key = derivativeKey(hash, name);
  if (!(await photoStore.has(key))) await photoStore.write(key, await encode(open(await photoStore.read(hash)), name));
  return photoStore.read(key);
}
