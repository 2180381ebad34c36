import { createHash } from 'node:crypto';
import sanitize from 'sanitize-html';
import sharp from 'sharp';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { photoFile } from '../../db/schema';
import { mostPixels } from '../../photos/limits';
import { photoStore } from '../../photos/store';

export const mostBadgeBytes = 2_000_000;
/** Longest side at which a badge's picture is kept, in pixels: as wide as the largest photo that is sent. */
const side = 1_600;

const shapes = [
  'svg',
  'g',
  'path',
  'rect',
  'circle',
  'ellipse',
  'line',
  'polyline',
  'polygon',
  'defs',
  'lineargradient',
  'radialgradient',
  'stop',
  'title',
  'desc',
];
const looks = [
  'xmlns',
  'viewbox',
  'width',
  'height',
  'd',
  'x',
  'y',
  'x1',
  'y1',
  'x2',
  'y2',
  'cx',
  'cy',
  'r',
  'rx',
  'ry',
  'points',
  'transform',
  'fill',
  'fill-rule',
  'fill-opacity',
  'clip-rule',
  'stroke',
  'stroke-width',
  'stroke-linecap',
  'stroke-linejoin',
  'stroke-miterlimit',
  'stroke-dasharray',
  'stroke-opacity',
  'opacity',
  'id',
  'offset',
  'stop-color',
  'stop-opacity',
  'gradientunits',
  'gradienttransform',
  'preserveaspectratio',
];
const camel: Record<string, string> = {
  viewbox: 'viewBox',
  lineargradient: 'linearGradient',
  radialgradient: 'radialGradient',
  gradientunits: 'gradientUnits',
  gradienttransform: 'gradientTransform',
  preserveaspectratio: 'preserveAspectRatio',
};

/** An SVG of outlines and colours alone: scripts, pictures, addresses, styles and entities are not in it any more. */
export function safeSvg(text: string): string {
  const clean = sanitize(text.replace(/<!DOCTYPE[^>[]*(\[[^\]]*\])?[^>]*>/gi, '').replace(/<\?[\s\S]*?\?>/g, ''), {
    allowedTags: shapes,
    allowedAttributes: { '*': looks },
    // Gradients are named within the drawing; nothing else may be.
    exclusiveFilter: ({ attribs }) => Object.values(attribs).some((value) => /url\(\s*['"]?(?!#)/i.test(value)),
    nonTextTags: ['script', 'style', 'foreignobject', 'image', 'text', 'textarea', 'option', 'noscript'],
    parser: { lowerCaseTags: true, lowerCaseAttributeNames: true },
  });
  return clean.replace(/(<\/?|\s)([a-z]+)(?=[\s=>/])/g, (all, before: string, name: string) =>
    camel[name] ? `${before}${camel[name]}` : all,
  );
}

const unreadable = (name: string) =>
  new NettingError('photo-unreadable', `${name || 'The file'} is neither a PNG nor an SVG that can be read`, {
    field: 'picture',
    fix: 'Save it as PNG with a see-through ground',
  });

/** Keeps a picture for a badge: a PNG as it came, an SVG made safe and drawn. */
export async function keepBadgePicture({
  bytes,
  name,
}: {
  bytes: Buffer;
  name: string;
}): Promise<{ hash: string; ratio: number }> {
  const start = bytes.subarray(0, 1_000).toString('utf8').trimStart();
  const isSvg = /^(<\?xml|<!--|<!doctype svg|<svg)/i.test(start);
  const source = isSvg ? Buffer.from(safeSvg(bytes.toString('utf8'))) : bytes;
  const meta = await sharp(source, { limitInputPixels: mostPixels })
    .metadata()
    .catch(() => null);
  if (!meta?.width || !meta.height || (meta.format !== 'svg' && meta.format !== 'png')) throw unreadable(name);
  const ratio = meta.width / meta.height;
  if (ratio < 0.05 || ratio > 20)
    throw new NettingError('invalid', `${name} is too long and thin for a badge`, {
      field: 'picture',
      fix: 'Cut it to what is to be seen',
    });
  // An SVG is drawn as large as it will ever be wanted.
  const density =
    meta.format === 'svg' ? Math.min(2_400, Math.max(72, (72 * side) / Math.max(meta.width, meta.height))) : undefined;
  const kept = await sharp(source, { limitInputPixels: mostPixels, ...(density ? { density } : {}) })
    .resize(side, side, { fit: 'inside', withoutEnlargement: true })
    .toColourspace('srgb')
    .png()
    .toBuffer()
    .catch(() => {
      throw unreadable(name);
    });
  const hash = createHash('sha256').update(kept).digest('hex');
  await photoStore.write(hash, kept);
  const { width, height } = await sharp(kept).metadata();
  const row = { hash, mime: 'image/png', width, height, bytes: kept.length, createdAt: new Date() };
  await database()
    .insert(photoFile)
    .values(row)
    .onDuplicateKeyUpdate({ set: { mime: row.mime } });
  return { hash, ratio: await pictureRatio(hash) };
}

/** Width by height of a kept picture. */
export async function pictureRatio(hash: string): Promise<number> {
  const meta = await photoStore
    .read(hash)
    .then((bytes) => sharp(bytes).metadata())
    .catch(() => null);
  if (!meta?.width || !meta.height)
    throw new NettingError('invalid', 'The picture of this badge is not here', {
      field: 'picture',
      fix: 'Choose it again',
    });
  return Math.round((meta.width / meta.height) * 1_000) / 1_000;
}
