import { z } from 'zod';

const colour = z.string().regex(/^#[0-9a-f]{6}$/, 'A colour is written as #1f2a30');

/** What words can stand on; `plain` is letters alone. */
export const badgeShapes = ['plain', 'box', 'pill', 'round', 'tag', 'burst', 'ribbon'] as const;
export type BadgeShape = (typeof badgeShapes)[number];
export const badgeShapeLabels: Record<BadgeShape, string> = {
  plain: 'Letters alone',
  box: 'Box',
  pill: 'Pill',
  round: 'Disc',
  tag: 'Tag',
  burst: 'Burst',
  ribbon: 'Ribbon',
};

/** Width by height, kept with it so that its place can be told without drawing it. */
const ratio = z.number().min(0.05).max(40);

const badgeWordsSchema = z.string().trim().min(1, 'Say what stands on it').max(24);

/** What is put on a picture: words on a shape of our own, or a picture with a see-through ground. */
export const badgeArtSchema = z.discriminatedUnion('kind', [
  z
    .object({
      kind: z.literal('words'),
      shape: z.enum(badgeShapes),
      words: badgeWordsSchema,
      ground: colour,
      ink: colour,
      ratio,
    })
    .strict(),
  z
    .object({
      kind: z.literal('picture'),
      /** A kept picture: PNG as it came, or an SVG made safe. */
      hash: z.string().regex(/^[0-9a-f]{64}$/),
      /** Everything that is not see-through in this colour; as it is when null. */
      colour: colour.nullable(),
      ratio,
    })
    .strict(),
]);
export type BadgeArt = z.infer<typeof badgeArtSchema>;

export const anchors = [
  'top-left',
  'top',
  'top-right',
  'left',
  'middle',
  'right',
  'bottom-left',
  'bottom',
  'bottom-right',
] as const;

const thousandths = z.number().int();

/**
 * Where a layer stands, in thousandths of the picture's shorter side, so that it is carried over to pictures of other
 * sizes and shapes in proportion. `dx`, `dy`: distance from the sides that it is anchored to, inwards; from the middle,
 * rightwards and downwards, where it is anchored to none.
 */
export const layerPlaceSchema = z
  .object({
    anchor: z.enum(anchors),
    dx: thousandths.min(-1_000).max(4_000),
    dy: thousandths.min(-1_000).max(4_000),
    /** Its width. */
    size: thousandths.min(20).max(4_000),
  })
  .strict();
export type LayerPlace = z.infer<typeof layerPlaceSchema>;

export const layerSchema = z
  .object({
    /** The kept badge that it is; null for one that is of this picture alone. */
    badge: z.number().int().positive().nullable(),
    art: badgeArtSchema,
    place: layerPlaceSchema,
  })
  .strict();
export type Layer = z.infer<typeof layerSchema>;

export type Box = { x: number; y: number; width: number; height: number };

const along = (anchor: string, before: string, after: string, length: number, own: number, offset: number): number =>
  anchor.includes(before) ? offset : anchor.includes(after) ? length - own - offset : (length - own) / 2 + offset;

/** The box of a layer on a picture of these sides, in its pixels; it may reach beyond the picture. */
export function layerBox({ art, place }: Pick<Layer, 'art' | 'place'>, width: number, height: number): Box {
  const unit = Math.min(width, height) / 1_000;
  const wide = place.size * unit;
  const high = wide / art.ratio;
  return {
    x: along(place.anchor, 'left', 'right', width, wide, place.dx * unit),
    y: along(place.anchor, 'top', 'bottom', height, high, place.dy * unit),
    width: wide,
    height: high,
  };
}

/**
 * The place of a layer whose box was moved to `x`, `y` on a picture of these sides: anchored to the corner, the edge or
 * the middle that it is nearest to, so that it goes there on pictures of another shape, too.
 */
export function placeAt(
  art: BadgeArt,
  size: number,
  at: { x: number; y: number },
  width: number,
  height: number,
): LayerPlace {
  const unit = Math.min(width, height) / 1_000;
  const wide = size * unit;
  const high = wide / art.ratio;
  const third = (middle: number, length: number) => (middle < length / 3 ? 0 : middle > (length * 2) / 3 ? 2 : 1);
  const column = third(at.x + wide / 2, width);
  const row = third(at.y + high / 2, height);
  const anchor = anchors[row * 3 + column] ?? 'middle';
  const offset = (side: number, start: number, own: number, length: number) =>
    side === 0 ? start : side === 2 ? length - own - start : start - (length - own) / 2;
  return {
    anchor,
    dx: Math.round(offset(column, at.x, wide, width) / unit),
    dy: Math.round(offset(row, at.y, high, height) / unit),
    size,
  };
}
