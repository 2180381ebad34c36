import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { derivatives } from '../../src/photos/derivatives';
import { storePhoto } from '../../src/photos/intake';
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
      1.3,
    ),
  ];
}
