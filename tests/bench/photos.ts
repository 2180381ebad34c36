import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { type Layer, layerBox, type PhotoRecipe, plainRecipe } from '../../src/core/photo';
import { wordsDrawing, wordsRatio } from '../../src/photos/badge';
import { derivativeKey, derivatives, makeSizes } from '../../src/photos/derivatives';
import { storePhoto } from '../../src/photos/intake';
import { keepRecipe, madeHash } from '../../src/photos/made';
import { photoStore } from '../../src/photos/store';
import { cameraJpeg } from '../support/pictures';
import { type Figure, median, ratioFigure, time } from './measure';

/** What stands behind the end of a JPEG is not looked at by decoders: so a few pictures become many different files. */
const made = (picture: Buffer, number: number): Buffer => Buffer.concat([picture, Buffer.from(`\n${number}`)]);

/** The same sizes by plain sharp, each from the file itself, and the file kept. */
async function plain(bytes: Buffer, folder: string, number: number): Promise<void> {
  for (const [name, { side, square }] of Object.entries(derivatives)) {
    const sized = sharp(bytes)
      .rotate()
      .resize(side, side, { fit: square ? 'cover' : 'inside', withoutEnlargement: !square });
    const encoded = name === 'market' ? sized.jpeg({ quality: 86 }) : sized.webp({ quality: 78 });
    await writeFile(join(folder, `${number}-${name}`), await encoded.toBuffer());
  }
  await writeFile(join(folder, `${number}`), bytes);
}

/** P8: photos of 12 megapixels stored with all sizes, against plain sharp on the same files: portions by turns. */
export async function storing(count: number): Promise<Figure[]> {
  const pictures = await Promise.all([1, 2, 3, 4, 5].map((seed) => cameraJpeg(seed)));
  const folder = await mkdtemp(join(tmpdir(), 'netting-bench-'));
  const portion = Math.ceil(count / 10);
  const ours: number[] = [];
  const raw: number[] = [];
  try {
    for (let start = 0; start < count; start += portion) {
      const files = Array.from({ length: portion }, (_, index) =>
        made(pictures[(start + index) % pictures.length] as Buffer, start + index),
      ); // five pictures, taken by turns
      ours.push(
        await time(async () => {
          for (const [index, file] of files.entries()) await storePhoto(file, `${start + index}.jpg`);
        }),
      );
      raw.push(
        await time(async () => {
          for (const [index, file] of files.entries()) await plain(file, folder, start + index);
        }),
      );
    }
  } finally {
    await rm(folder, { recursive: true });
  }
  return [
    ratioFigure(
      `P8 ${count} photos of 12 megapixels, ${portion} of them`,
      { ours: median(ours), raw: median(raw) },
      1.1,
    ),
  ];
}

const words = { shape: 'burst' as const, words: 'Ships tomorrow' };
const layer: Layer = {
  badge: 1,
  art: { kind: 'words', ...words, ground: '#155e52', ink: '#ffffff', ratio: wordsRatio(words) },
  place: { anchor: 'top-left', dx: 40, dy: 40, size: 280 },
};
const recipe: PhotoRecipe = { ...plainRecipe, layers: [layer] };

/** The same badge on the same picture in the same sizes, by plain sharp: upright and made smaller, the badge put on, written. */
async function plainBadge(bytes: Buffer, folder: string, number: number): Promise<void> {
  const { side } = derivatives.market;
  const { data, info } = await sharp(bytes)
    .rotate()
    .resize(side, side, { fit: 'inside' })
    .raw()
    .toBuffer({ resolveWithObject: true });
  const box = layerBox(layer, info.width, info.height);
  const badge =
    layer.art.kind === 'words'
      ? await sharp(Buffer.from(wordsDrawing(layer.art, Math.round(box.width))))
          .png()
          .toBuffer()
      : Buffer.alloc(0);
  const raw = { width: info.width, height: info.height, channels: info.channels };
  const carried = await sharp(data, { raw })
    .composite([{ input: badge, left: Math.round(box.x), top: Math.round(box.y) }])
    .raw()
    .toBuffer();
  await Promise.all(
    Object.entries(derivatives).map(async ([name, { side: longest, square }]) => {
      const sized = sharp(carried, { raw }).resize(longest, longest, {
        fit: square ? 'cover' : 'inside',
        withoutEnlargement: !square,
      });
      const encoded = name === 'market' ? sized.jpeg({ quality: 86 }) : sized.webp({ quality: 78, effort: 2 });
      await writeFile(join(folder, `${number}-${name}`), await encoded.toBuffer());
    }),
  );
}

/** P11: a badge on main photos of 12 megapixels, all sizes made, against plain sharp doing the same: portions by turns. */
export async function badging(count: number): Promise<Figure[]> {
  const pictures = await Promise.all([1, 2, 3, 4, 5].map((seed) => cameraJpeg(seed)));
  const folder = await mkdtemp(join(tmpdir(), 'netting-bench-'));
  const portion = Math.ceil(count / 10);
  const ours: number[] = [];
  const raw: number[] = [];
  let most = 0;
  const watch = setInterval(() => {
    most = Math.max(most, process.memoryUsage.rss());
  }, 50);
  try {
    for (let start = 0; start < count; start += portion) {
      const files = Array.from({ length: portion }, (_, index) =>
        made(pictures[(start + index) % pictures.length] as Buffer, 10_000 + start + index),
      ); // five pictures, taken by turns
      const hashes: string[] = [];
      for (const [index, file] of files.entries()) {
        const { hash } = await storePhoto(file, `${start + index}.jpg`, 'later');
        const carrying = madeHash(hash, recipe);
        await keepRecipe(carrying, hash, recipe);
        hashes.push(carrying);
      }
      ours.push(await time(() => makeSizes(hashes)));
      for (const hash of hashes)
        for (const name of ['thumb', 'view', 'market'] as const)
          if (!(await photoStore.has(derivativeKey(hash, name)))) throw new Error('a size was not made');
      raw.push(
        await time(async () => {
          const open = [...files.entries()];
          const work = async () => {
            for (let next = open.pop(); next; next = open.pop()) await plainBadge(next[1], folder, start + next[0]);
          };
          // As many side by side as ours.
          await Promise.all([work(), work(), work()]);
        }),
      );
    }
  } finally {
    clearInterval(watch);
    await rm(folder, { recursive: true });
  }
  return [
    ratioFigure(
      `P11 a badge on ${count} photos of 12 megapixels, ${portion} of them`,
      { ours: median(ours), raw: median(raw) },
      1.3,
    ),
    {
      id: 'P11 memory at most, the whole process',
      value: Math.round(most / 1_000_000),
      unit: 'MB',
      baseline: null,
      ratio: null,
      goal: '≤ 500 MB',
      ok: most <= 500_000_000,
    },
  ];
}
