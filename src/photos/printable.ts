import sharp, { type Sharp } from 'sharp';
import { noBackground, type PrintPlan } from '../core/artwork/print-plan';
import { mostPixels } from './limits';

const clear = { r: 0, g: 0, b: 0, alpha: 0 };

/** Whether what is placed lies wholly in the file, upright: then it is only filled up to it. */
const isWithin = ({ at, canvas, degrees }: PrintPlan): boolean =>
  degrees === 0 && at.x >= 0 && at.y >= 0 && at.x + at.width <= canvas.width && at.y + at.height <= canvas.height;

const cutOut = (original: Buffer, { cut, at }: PrintPlan): Sharp =>
  sharp(original, { limitInputPixels: mostPixels, failOn: 'error', sequentialRead: true })
    .rotate()
    .extract({ left: cut.x, top: cut.y, width: cut.width, height: cut.height })
    .toColourspace('srgb')
    .ensureAlpha()
    .resize(at.width, at.height, { fit: 'fill' });

/** The picture turned about its middle, and what of it lies in the file. */
async function laidOn(original: Buffer, plan: PrintPlan): Promise<Sharp> {
  const { canvas, at, degrees } = plan;
  const { data, info } = await cutOut(original, plan)
    .png({ compressionLevel: 0 })
    .toBuffer({ resolveWithObject: true })
    .then(({ data: upright }) =>
      sharp(upright).rotate(degrees, { background: clear }).raw().toBuffer({ resolveWithObject: true }),
    );
  const left = Math.round(at.x + at.width / 2 - info.width / 2);
  const top = Math.round(at.y + at.height / 2 - info.height / 2);
  const seen = {
    left: Math.max(0, -left),
    top: Math.max(0, -top),
    right: Math.min(info.width, canvas.width - left),
    bottom: Math.min(info.height, canvas.height - top),
  };
  const empty = sharp({ create: { ...canvas, channels: 4, background: clear } });
  if (seen.right <= seen.left || seen.bottom <= seen.top) return empty;
  const part = await sharp(data, { raw: { width: info.width, height: info.height, channels: info.channels } })
    .extract({ left: seen.left, top: seen.top, width: seen.right - seen.left, height: seen.bottom - seen.top })
    .png({ compressionLevel: 0 })
    .toBuffer();
  return sharp(
    await empty
      .composite([{ input: part, left: Math.max(0, left), top: Math.max(0, top) }])
      .png({ compressionLevel: 0 })
      .toBuffer(),
  );
}

/**
 * The printable of a picture: as the plan says, in its measure and colour profile; a PNG with transparency, or a JPEG where
 * something is printed under it. The same picture and plan give the same bytes.
 * @param original an upright or turned picture of at most 120 megapixels
 * @throws when it cannot be read
 */
export async function makePrintable(original: Buffer, plan: PrintPlan): Promise<Buffer> {
  const { canvas, at, background, profile, dots } = plan;
  const laid = isWithin(plan)
    ? cutOut(original, plan).extend({
        left: at.x,
        top: at.y,
        right: canvas.width - at.x - at.width,
        bottom: canvas.height - at.y - at.height,
        // What is laid under it is laid under the picture before it is filled up.
        background: background === noBackground ? clear : background,
      })
    : await laidOn(original, plan);
  const measured = laid
    .withIccProfile(profile)
    .withExif({ IFD0: { XResolution: `${dots}/1`, YResolution: `${dots}/1`, ResolutionUnit: '2' } });
  return background === noBackground
    ? measured.png({ compressionLevel: 6, adaptiveFiltering: false }).toBuffer()
    : measured.flatten({ background }).jpeg({ quality: 92, chromaSubsampling: '4:4:4' }).toBuffer();
}
