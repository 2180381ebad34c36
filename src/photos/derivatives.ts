import sharp, { type Sharp } from 'sharp';
import type { PhotoRecipe } from '../core/photo/recipe';
import { mostPixels } from './limits';
import { keptRecipe } from './made';
import { fromRaw, renderRecipe } from './render';
import { photoStore } from './store';

/** Sizes made of every photo: for the net's rows, for the sheet, and for marketplaces. Longest side in pixels. */
export const derivatives = {
  thumb: { side: 96, square: true },
  view: { side: 640, square: false },
  market: { side: 1600, square: false },
} as const;
export type Derivative = keyof typeof derivatives;
const names = Object.keys(derivatives) as Derivative[]; // keys of the constant above

export const derivativeKey = (hash: string, name: Derivative): string =>
  `${hash}-${name}.${name === 'market' ? 'jpg' : 'webp'}`;

const open = (original: Buffer) => sharp(original, { limitInputPixels: mostPixels, failOn: 'error' }).rotate();

/** One size of an upright picture. Longest side, or a square cut from the middle. */
function encode(upright: Sharp, name: Derivative): Promise<Buffer> {
  const { side, square } = derivatives[name];
  const sized = upright.resize(side, side, { fit: square ? 'cover' : 'inside', withoutEnlargement: !square });
  return name === 'market'
    ? sized.flatten({ background: '#ffffff' }).jpeg({ quality: 86 }).toBuffer()
    : sized.webp({ quality: 78, effort: 2 }).toBuffer();
}

/** Every size of an upright picture of at most the largest of them; when it fails, no more of them is written. */
async function writeAll(hash: string, upright: () => Sharp): Promise<void> {
  const ended = await Promise.allSettled(
    names.map(async (name) => photoStore.write(derivativeKey(hash, name), await encode(upright(), name))),
  );
  const failed = ended.find((one) => one.status === 'rejected');
  if (failed) throw failed.reason;
}

/** Every size of a new photo. The large file is read once; the smaller sizes are made from the largest one. */
export async function makeDerivatives(hash: string, original: Buffer): Promise<void> {
  const { side } = derivatives.market;
  const { data, info } = await open(original)
    .resize(side, side, { fit: 'inside', withoutEnlargement: true })
    .raw()
    .toBuffer({ resolveWithObject: true });
  const raw = { width: info.width, height: info.height, channels: info.channels };
  await writeAll(hash, () => sharp(data, { raw }));
}

/** Every size of a picture that a recipe makes, from its original. */
export async function makeMade(hash: string, original: Buffer, recipe: PhotoRecipe): Promise<void> {
  const pixels = await renderRecipe(original, recipe, derivatives.market.side);
  await writeAll(hash, () => fromRaw(pixels));
}

/** Pictures made side by side: one is read while another is written. */
const sideBySide = 3;

/** After so many pictures a sign of life is given. */
const aliveEvery = 20;

/**
 * Every size of pictures whose recipes are kept; one that cannot be made says so when it is looked at.
 * @param alive told from time to time by who holds something meanwhile
 */
export async function makeSizes(hashes: readonly string[], alive?: () => Promise<unknown>): Promise<void> {
  const open = [...hashes];
  const work = async () => {
    for (let hash = open.pop(); hash !== undefined; hash = open.pop()) {
      await readDerivative(hash, 'market').catch(() => undefined);
      if (alive && open.length % aliveEvery === 0) await alive();
    }
  };
  await Promise.all(Array.from({ length: sideBySide }, work));
}

/** Takes back what was made of a picture that turned out to be damaged. */
export const removeDerivatives = (hash: string): Promise<unknown> =>
  Promise.all(names.map((name) => photoStore.remove(derivativeKey(hash, name))));

/** A derivative's bytes; made from the original when it is not there yet. */
export async function readDerivative(hash: string, name: Derivative): Promise<Buffer> {
  const key = derivativeKey(hash, name);
  if (!(await photoStore.has(key))) {
    const made = await keptRecipe(hash);
    if (made) await makeMade(hash, await photoStore.read(made.original), made.recipe);
    else await photoStore.write(key, await encode(open(await photoStore.read(hash)), name));
  }
  return photoStore.read(key);
}

/** A photo in its full size: the file as it came, or what its recipe makes of the whole original, as a JPEG. */
export async function readWhole(hash: string): Promise<Buffer> {
  const made = await keptRecipe(hash);
  if (!made) return photoStore.read(hash);
  const pixels = await renderRecipe(await photoStore.read(made.original), made.recipe, null);
  return fromRaw(pixels).jpeg({ quality: 92 }).toBuffer();
}
