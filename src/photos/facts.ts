import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import exifr from 'exifr';
import sharp from 'sharp';
import { mostPixels } from './limits';

/** When a picture was taken, as the camera says; null where it does not. Cameras know no zone: it is read as UTC. */
export async function takenAt(bytes: Buffer): Promise<Date | null> {
  const read = (await exifr
    .parse(bytes, { pick: ['DateTimeOriginal', 'CreateDate', 'SubSecTimeOriginal'], reviveValues: false })
    .catch(() => undefined)) as Record<string, unknown> | undefined; // tags by name, of whatever kind the file has
  const said = String(read?.DateTimeOriginal ?? read?.CreateDate ?? '');
  const [, day, time] = /^(\d{4}:\d{2}:\d{2})[ T](\d{2}:\d{2}:\d{2})/.exec(said) ?? [];
  if (!day || !time) return null;
  const part = String(read?.SubSecTimeOriginal ?? '')
    .slice(0, 3)
    .padEnd(3, '0');
  const at = new Date(`${day.replaceAll(':', '-')}T${time}.${/^\d{3}$/.test(part) ? part : '000'}Z`);
  return Number.isNaN(at.getTime()) ? null : at;
}

/** Longest side at which barcodes are looked for: a sheet that fills the picture is read, and it takes no time. */
const side = 1_100;

const wasm = join(process.cwd(), 'node_modules', 'zxing-wasm', 'dist', 'reader', 'zxing_reader.wasm');

/** The reader with its own module from the disk: left to itself it would look for that on the network. */
async function openReader(): Promise<typeof import('zxing-wasm/reader')> {
  const found = await import('zxing-wasm/reader');
  const bytes = await readFile(wasm);
  await found.prepareZXingModule({
    overrides: { wasmBinary: bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer }, // of a file, never shared
    fireImmediately: true,
  });
  return found;
}

let reader: ReturnType<typeof openReader> | null = null;

/** Barcodes that are seen in a picture, as they read; the largest first. */
export async function codesIn(bytes: Buffer): Promise<string[]> {
  reader ??= openReader();
  const { readBarcodes } = await reader;
  const { data, info } = await sharp(bytes, { limitInputPixels: mostPixels })
    .rotate()
    .resize(side, side, { fit: 'inside', withoutEnlargement: true })
    .ensureAlpha()
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const picture = {
    data: new Uint8ClampedArray(data.buffer, data.byteOffset, data.length),
    width: info.width,
    height: info.height,
    colorSpace: 'srgb' as const,
  };
  const found = await readBarcodes(picture as ImageData, {
    formats: ['EAN13', 'EAN8', 'UPCA', 'UPCE', 'Code128', 'Code39', 'ITF', 'QRCode', 'DataMatrix'],
    maxNumberOfSymbols: 4,
    tryHarder: false,
  });
  const area = ({ topLeft, bottomRight }: (typeof found)[number]['position']) =>
    Math.abs((bottomRight.x - topLeft.x) * (bottomRight.y - topLeft.y));
  return found
    .filter((one) => one.isValid && one.text)
    .sort((a, b) => area(b.position) - area(a.position))
    .map((one) => one.text.trim().slice(0, 100));
}
