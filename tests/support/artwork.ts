import { randomBytes } from 'node:crypto';
import sharp from 'sharp';
import type { PrintTemplate } from '../../src/core/artwork';
import type { ReceivedArtwork } from '../../src/services/artwork/receive-artwork';
import { sheet } from './items';
import { call, stack } from './stack';

/** A drawing on nothing, in one colour: strokes that no other has. */
export function strokes(colour: string, side = 3_000): Buffer {
  const places = [...randomBytes(24)].map((one) => Math.round(side * (0.15 + (0.7 * one) / 255)));
  const points = places.flatMap((x, at) => (at % 2 ? [] : [`${x},${places[at + 1]}`])).join(' ');
  return Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${side}" height="${side}"><polyline points="${points}" fill="none" stroke="${colour}" stroke-width="${side / 12}" stroke-linecap="round" stroke-linejoin="round"/></svg>`,
  );
}

/** The same as a PNG with transparency. */
export const drawing = (colour: string, side = 3_000): Promise<Buffer> =>
  sharp(strokes(colour, side), { limitInputPixels: false }).png().toBuffer();

/** Brings a picture of artwork in. */
export async function bringArtwork(
  bytes: Buffer,
  name: string,
): Promise<{ status: number; body: ReceivedArtwork & { title?: string; fix?: string } }> {
  const answer = await fetch(`${stack.base}/api/v1/artworks`, {
    method: 'POST',
    headers: {
      authorization: `Bearer ${stack.token}`,
      'content-type': 'application/octet-stream',
      'x-file-name': encodeURIComponent(name),
    },
    body: new Uint8Array(bytes),
  });
  return { status: answer.status, body: (await answer.json()) as ReceivedArtwork & { title?: string; fix?: string } };
}

/** Artwork for an audience that nobody else has, so that a template of its own fits it alone; ready for its printer. */
export async function readyArtwork(audience: string, bytes?: Buffer): Promise<number> {
  const { status, body } = await bringArtwork(bytes ?? (await drawing('#202020')), `${audience}.png`);
  if (status !== 201) throw new Error(JSON.stringify(body));
  const changed = await call('PATCH', `/items/${body.itemId}`, {
    baseVersion: (await sheet(body.itemId)).item.version,
    patch: {
      attributes: { Audience: audience, 'Reads well on': 'White, Natural', Motif: 'Abstract' },
      description: '<p>Drawn with a brush.</p>',
      price: 5_900,
    },
  });
  if (changed.status !== 200) throw new Error(JSON.stringify(changed.body));
  return body.itemId;
}

/** A product template for an audience alone. */
export async function printsFor(
  audience: string,
  accounts: number[],
  print: Partial<PrintTemplate> & Pick<PrintTemplate, 'pieces'>,
  more: Record<string, unknown> = {},
): Promise<{ id: number; version: number }> {
  const { status, body } = await call<{ id: number; version: number }>('POST', '/templates', {
    name: `Prints for ${audience}`,
    accounts,
    conditions: [{ field: 'attributes.Audience', op: 'is', value: audience }],
    fields: {},
    print: { placing: null, background: null, ...print },
    ...more,
  });
  if (status >= 300) throw new Error(JSON.stringify(body));
  return body;
}

/** A product as the marketplace publishes it, on grounds that it publishes. */
export const piece = (
  product: string,
  grounds: string[],
  price: number | null = null,
): PrintTemplate['pieces'][number] => ({
  product,
  area: null,
  price,
  grounds: grounds.map((name) => ({ name, colour: null })),
});
