import { z } from 'zod';
import { ownValue, sameJson } from '../../../json';
import {
  backdropSchema,
  badgeArtSchema,
  cropAround,
  type Layer,
  layerPlaceSchema,
  layerSchema,
  lightByItself,
  plainRecipe,
  turnedBox,
  usualBackdrop,
} from '../../../photo';
import { defineVerb } from '../verb';
import { madeAnew, photoHash, sayWhich, which } from './entries';

const kinds = ['photos'] as const;
const hundred = z.number().int().min(-100).max(100);

export const cropShapes = { square: 'Square', portrait: '4:5' } as const;
const ratios: Record<keyof typeof cropShapes, number> = { square: 1, portrait: 4 / 5 };

const unseen = 'A photo of it cannot be read';

export const cropPhotosVerb = defineVerb({
  name: 'photo-crop',
  label: 'Crop around the thing',
  kinds,
  schema: z
    .object({
      verb: z.literal('photo-crop'),
      to: z.enum(['square', 'portrait']),
      /** Close around what stands in front, or as much of the picture as the shape allows. */
      fit: z.enum(['close', 'whole']).default('close'),
      which,
    })
    .strict(),
  apply: ({ to, fit, which: meant }, value, context) =>
    madeAnew(value, context, meant, ({ look, from, recipe }) => {
      if (!look) return unseen;
      const box = look.box && turnedBox(look.box, from, recipe.turn);
      return { ...recipe, crop: cropAround(box, from, recipe.turn, ratios[to], fit === 'close') };
    }),
  say: ({ to, which: meant }) => `cropped to ${to === 'square' ? 'a square' : '4:5'}, ${sayWhich(meant)}`,
});

export const turnPhotosVerb = defineVerb({
  name: 'photo-turn',
  label: 'Turn or straighten',
  kinds,
  schema: z
    .object({
      verb: z.literal('photo-turn'),
      degrees: z
        .number()
        .min(-180)
        .max(180)
        .refine((one) => one !== 0, 'By how many degrees'),
      which,
    })
    .strict(),
  apply: ({ degrees, which: meant }, value, context) =>
    madeAnew(value, context, meant, ({ recipe }) => {
      const turn = (((Math.round((recipe.turn + degrees) * 10) / 10) % 360) + 360) % 360;
      // A crop was of the picture as it lay: what was cropped is cropped anew.
      return { ...recipe, turn: turn > 180 ? turn - 360 : turn, crop: null };
    }),
  say: ({ degrees, which: meant }) => `turned by ${degrees}°, ${sayWhich(meant)}`,
});

export const lightPhotosVerb = defineVerb({
  name: 'photo-light',
  label: 'Set light and colours',
  kinds,
  schema: z
    .object({
      verb: z.literal('photo-light'),
      brightness: hundred.nullable().default(null),
      contrast: hundred.nullable().default(null),
      warmth: hundred.nullable().default(null),
      tint: hundred.nullable().default(null),
      which,
    })
    .strict(),
  apply({ verb: _verb, which: meant, ...light }, value, context) {
    const said = Object.entries(light).filter(([, one]) => one !== null);
    if (said.length === 0) return { refused: 'Say at least one of them' };
    return madeAnew(value, context, meant, ({ recipe }) => ({ ...recipe, ...Object.fromEntries(said) }));
  },
  say: ({ verb: _verb, which: meant, ...light }) =>
    `${Object.entries(light)
      .flatMap(([name, one]) => (one === null ? [] : [`${name} ${one}`]))
      .join(', ')}, ${sayWhich(meant)}`,
});

export const lightByItselfVerb = defineVerb({
  name: 'photo-auto',
  label: 'Light and colours by themselves',
  kinds,
  schema: z.object({ verb: z.literal('photo-auto'), which }).strict(),
  apply: ({ which: meant }, value, context) =>
    madeAnew(value, context, meant, ({ look, recipe }) => (look ? { ...recipe, ...lightByItself(look) } : unseen)),
  say: ({ which: meant }) => `lit by themselves, ${sayWhich(meant)}`,
});

export const cleanBackdropVerb = defineVerb({
  name: 'photo-backdrop',
  label: 'Clean up the backdrop',
  kinds,
  schema: z
    .object({
      verb: z.literal('photo-backdrop'),
      /** As on the photo desk; what is usual there when null. */
      reach: backdropSchema.shape.reach.nullable().default(null),
      softness: backdropSchema.shape.softness.nullable().default(null),
      which,
    })
    .strict(),
  apply: ({ reach, softness, which: meant }, value, context) =>
    madeAnew(value, context, meant, ({ recipe }) => ({
      ...recipe,
      backdrop: { reach: reach ?? usualBackdrop.reach, softness: softness ?? usualBackdrop.softness },
    })),
  say: ({ which: meant }) => `on white, ${sayWhich(meant)}`,
});

/** Whether a layer is a badge: the kept one of this number, or of the same art. */
const isBadge = (layer: Layer, { badge, art }: Layer): boolean =>
  badge === null ? layer.badge === null && sameJson(layer.art, art) : layer.badge === badge;

export const putBadgeVerb = defineVerb({
  name: 'photo-badge',
  label: 'Put a badge on',
  kinds,
  schema: z
    .object({
      verb: z.literal('photo-badge'),
      layer: layerSchema,
      /** Places of its own on single pictures, by the hash of their originals. */
      apart: z
        .record(photoHash, layerPlaceSchema)
        .default({})
        .refine((all) => Object.keys(all).length <= 2_000, 'At most 2,000 of them have a place of their own'),
      which,
    })
    .strict(),
  apply: ({ layer, apart, which: meant }, value, context) =>
    madeAnew(value, context, meant, ({ recipe, original }) => {
      // It stands there once, however often this is done.
      const others = recipe.layers.filter((one) => !isBadge(one, layer));
      if (others.length >= 6) return 'A photo of it carries six badges already';
      return { ...recipe, layers: [...others, { ...layer, place: ownValue(apart, original) ?? layer.place }] };
    }),
  say: ({ layer: { art }, which: meant }) =>
    `with ${art.kind === 'words' ? `“${art.words}”` : 'a badge'} on ${sayWhich(meant)}`,
});

export const takeBadgeOffVerb = defineVerb({
  name: 'photo-unbadge',
  label: 'Take badges off',
  kinds,
  schema: z
    .object({
      verb: z.literal('photo-unbadge'),
      /** The kept badge; every one when null. */
      badge: z.number().int().positive().nullable().default(null),
      which: which.default('all'),
    })
    .strict(),
  apply: ({ badge, which: meant }, value, context) =>
    madeAnew(value, context, meant, ({ recipe }) => ({
      ...recipe,
      layers: badge === null ? [] : recipe.layers.filter((one) => one.badge !== badge),
    })),
  say: ({ which: meant }) => `without badge on ${sayWhich(meant)}`,
});

export const changeBadgeVerb = defineVerb({
  name: 'photo-rebadge',
  label: 'Change a badge where it stands',
  kinds,
  schema: z
    .object({ verb: z.literal('photo-rebadge'), badge: z.number().int().positive(), art: badgeArtSchema })
    .strict(),
  apply: ({ badge, art }, value, context) =>
    madeAnew(value, context, 'all', ({ recipe }) => ({
      ...recipe,
      layers: recipe.layers.map((one) => (one.badge === badge ? { ...one, art } : one)),
    })),
  say: ({ art }) => `with the badge as ${art.kind === 'words' ? `“${art.words}”` : 'another picture'}`,
});

export const plainPhotosVerb = defineVerb({
  name: 'photo-plain',
  label: 'Back to the original',
  kinds,
  schema: z.object({ verb: z.literal('photo-plain'), which }).strict(),
  apply: ({ which: meant }, value, context) => madeAnew(value, context, meant, () => plainRecipe),
  say: ({ which: meant }) => `untouched, ${sayWhich(meant)}`,
});
