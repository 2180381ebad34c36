import bwip from 'bwip-js/node';
import sharp from 'sharp';
import type { DropView } from '../../src/services/photos/find-drop';
import { call, stack, until } from './stack';

/** A small picture, each seed another one. */
export const small = (seed: number, exif?: { at: Date }): Promise<Buffer> => {
  const picture = sharp({
    create: {
      width: 320 + (seed % 60),
      height: 240 + (Math.floor(seed / 60) % 90),
      channels: 3,
      background: { r: (seed * 37) % 256, g: (seed * 91) % 256, b: (seed * 13) % 256 },
    },
  });
  const said = exif?.at.toISOString().slice(0, 19).replaceAll('-', ':').replace('T', ' ');
  return (said ? picture.withExif({ IFD2: { DateTimeOriginal: said } }) : picture).jpeg({ quality: 60 }).toBuffer();
};

/** A sheet with a barcode, photographed: a little askew, on a table. */
export async function barcodeSheet(text: string, seed = 1, at?: Date): Promise<Buffer> {
  const code = await bwip.toBuffer({
    bcid: 'code128',
    text,
    scale: 5,
    height: 18,
    paddingwidth: 12,
    paddingheight: 12,
    backgroundcolor: 'FFFFFF',
  });
  const sheet = await sharp(code).rotate(1.5, { background: '#ffffff' }).toBuffer();
  const { width = 0 } = await sharp(sheet).metadata();
  const picture = sharp({
    create: {
      width: Math.max(1_400, width + 100),
      height: 900,
      channels: 3,
      background: { r: 120, g: 90 + (seed % 50), b: 70 },
    },
  }).composite([{ input: sheet }]);
  const said = at?.toISOString().slice(0, 19).replaceAll('-', ':').replace('T', ' ');
  return (said ? picture.withExif({ IFD2: { DateTimeOriginal: said } }) : picture).jpeg({ quality: 85 }).toBuffer();
}

export type File = { path: string; bytes: Buffer };

const put = (drop: number, id: number, { path, bytes }: File) =>
  fetch(`${stack.base}/api/v1/photo-drops/${drop}/files/${id}`, {
    method: 'PUT',
    headers: {
      authorization: `Bearer ${stack.token}`,
      'content-type': 'application/octet-stream',
      'x-file-name': encodeURIComponent(path),
    },
    body: new Uint8Array(bytes),
  });

/** Notes files and sends those of them whose bytes are wanted. */
export async function dropped(files: File[], drop?: number): Promise<{ drop: number; sent: number }> {
  const { body } = await call<{ drop: number; wanted: { id: number; path: string }[] }>('POST', '/photo-drops', {
    drop,
    files: files.map(({ path, bytes }) => ({ path, bytes: bytes.length })),
  });
  for (const { id, path } of body.wanted) {
    const file = files.find((one) => one.path === path);
    if (file) await put(body.drop, id, file);
  }
  return { drop: body.drop, sent: body.wanted.length };
}

export const tied = async (drop: number, how: Record<string, unknown> = { way: 'name' }): Promise<DropView> => {
  await call('POST', `/photo-drops/${drop}/tie`, how);
  return dropView(drop);
};
export const dropView = async (drop: number): Promise<DropView> =>
  (await call<DropView>('GET', `/photo-drops/${drop}?items=500&tray=1000`)).body;

/** Puts what is tied on the items, to its end. */
export async function added(drop: number, where = 'behind'): Promise<DropView> {
  await call('POST', `/photo-drops/${drop}/add`, { where });
  return until(
    () => dropView(drop),
    ({ task }) => task?.state === 'done' || task?.state === 'failed',
  );
}
