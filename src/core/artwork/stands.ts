import { z } from 'zod';
import type { Item, Photo } from '../item/item';
import { ownValue } from '../json';
import { type Picture, type Placing, placingSchema } from './place';
import type { PrintTemplate } from './print-template';

/** The name under which a placing holds on every product. */
export const everywhere = '*';

/** What was said of a product and ground when it was looked over. */
export const verdicts = ['good', 'off'] as const;
export const verdictSchema = z.enum(verdicts);
export type Verdict = z.infer<typeof verdictSchema>;

/** A photo of which is known what is visible of it. */
type Artwork = Photo & Picture;

/** The picture of an item that is artwork; undefined for any other item. */
export const artworkOf = (item: Pick<Item, 'photos'>): Artwork | undefined =>
  item.photos.find((one): one is Artwork => one.visible !== undefined);

/** What the file of artwork was called, without its ending; empty for any other item. */
export const fileNameOf = (item: Pick<Item, 'photos'>): string =>
  (item.photos.find((one) => one.fileName !== undefined)?.fileName ?? '').replace(/\.[^.]+$/, '');

/** Where it is made when it is bought, nothing of it lies anywhere: there are always as many as are offered. */
export const isMadeToOrder = (item: Pick<Item, 'photos'>): boolean => artworkOf(item) !== undefined;

/** A placing in words: across, down, size, degrees, and whether by the eye's middle. */
export const writePlacing = ({ x, y, scale, degrees, isOptical }: Placing): string =>
  [x, y, scale, degrees].map((one) => String(Math.round(one * 10_000) / 10_000)).join(' ') +
  (isOptical ? ' optical' : '');

/** The way back; null for words that say none. */
export function readPlacing(words: string): Placing | null {
  const [x, y, scale, degrees, optical] = words.split(' ');
  const read = placingSchema.safeParse({
    x: Number(x),
    y: Number(y),
    scale: Number(scale),
    degrees: Number(degrees),
    isOptical: optical === 'optical',
  });
  return read.success ? read.data : null;
}

const said = (placings: Readonly<Record<string, string>>, product: string): Placing | null => {
  const words = ownValue(placings, product);
  return words === undefined ? null : readPlacing(words);
};

/** Whether a person has placed it, for this product or for all of them. */
export const isByHand = ({ placings }: Pick<Item, 'placings'>, product: string): boolean =>
  (said(placings, product) ?? said(placings, everywhere)) !== null;

/** How artwork stands on a product: placed there by hand, on all by hand, by the template, else in the middle. */
export const placingFor = (
  { placings }: Pick<Item, 'placings'>,
  product: string,
  template: Pick<PrintTemplate, 'placing'> | null,
): Placing => said(placings, product) ?? said(placings, everywhere) ?? template?.placing ?? placingSchema.parse({});

const lookKey = (product: string, ground: string) => `${product} / ${ground}`.slice(0, 130);

/** What was said of it on a product and ground; null while nobody has looked. */
export function verdictOn({ looks }: Pick<Item, 'looks'>, product: string, ground: string): Verdict | null {
  const read = verdictSchema.safeParse(ownValue(looks, lookKey(product, ground)));
  return read.success ? read.data : null;
}

/** The same with one more said, or taken back. */
export function withVerdict(
  looks: Readonly<Record<string, string>>,
  { product, ground, verdict }: { product: string; ground: string; verdict: Verdict | null },
): Record<string, string> {
  const { [lookKey(product, ground)]: _before, ...rest } = looks;
  return verdict === null ? rest : { ...rest, [lookKey(product, ground)]: verdict };
}
