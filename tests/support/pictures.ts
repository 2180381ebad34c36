import sharp from 'sharp';

/**
 * A photo as a phone or camera writes it: 12 megapixels of content that compresses like a picture, lying on its side with
 * the turn told in EXIF. `seed` makes each a different one.
 */
export async function cameraJpeg(
  seed: number,
  { orientation = 6, width = 4_000, height = 3_000 } = {},
): Promise<Buffer> {
  const grain = await sharp({
    create: {
      width: 250,
      height: 188,
      channels: 3,
      background: '#808080',
      noise: { type: 'gaussian', mean: 110 + (seed % 7) * 8, sigma: 28 },
    },
  })
    .png()
    .toBuffer();
  return sharp(grain)
    .resize(width, height, { fit: 'fill' })
    .tint({ r: 90 + ((seed * 37) % 140), g: 100, b: 90 + ((seed * 53) % 140) })
    .withMetadata({ orientation })
    .jpeg({ quality: 82 })
    .toBuffer();
}
