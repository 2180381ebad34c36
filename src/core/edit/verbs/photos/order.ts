import { z } from 'zod';
import type { PhotoKnowledge } from '../../../photo';
import { defineVerb } from '../verb';
import { type Entry, entriesOf, isMade, outcome, photoHash, standing } from './entries';

const kinds = ['photos'] as const;

export const putPlaces = { last: 'Last', 'before-last': 'Before the last', first: 'First', second: 'Second' } as const;
type PutPlace = keyof typeof putPlaces;

const placeIn = (at: PutPlace, count: number): number =>
  at === 'first' ? 0 : at === 'second' ? Math.min(1, count) : at === 'last' ? count : Math.max(0, count - 1);

export const putPhotoVerb = defineVerb({
  name: 'photo-put',
  label: 'Put a picture in',
  kinds,
  schema: z
    .object({
      verb: z.literal('photo-put'),
      photo: photoHash,
      at: z.enum(['first', 'second', 'before-last', 'last']).default('last'),
    })
    .strict(),
  apply({ photo, at }, value, context) {
    const known = context.photos?.at(photo);
    if (!known) return { refused: 'The picture that is to be put in is not here' };
    // It stands there once, however often this is done.
    const others = entriesOf(value).filter((one) => one.hash !== photo);
    const place = placeIn(at, others.length);
    return outcome([...others.slice(0, place), standing(known, context), ...others.slice(place)]);
  },
  say: ({ at }) => `with a picture put in ${at === 'before-last' ? 'before the last' : at}`,
});

/** The same file, the same original, or on wish another take of it. */
const isSame = (one: string, other: string, alike: boolean, known: PhotoKnowledge | undefined): boolean =>
  one === other ||
  (known?.at(one)?.original ?? one) === (known?.at(other)?.original ?? other) ||
  (alike && known?.alike(one, other) === true);

const alike = z.boolean().default(false);

export const replacePhotoVerb = defineVerb({
  name: 'photo-replace',
  label: 'Put another in its place',
  kinds,
  schema: z.object({ verb: z.literal('photo-replace'), photo: photoHash, put: photoHash, alike }).strict(),
  apply({ photo, put, alike: too }, value, context) {
    const known = context.photos?.at(put);
    if (!known) return { refused: 'The picture that is to be put in is not here' };
    const before = entriesOf(value);
    const isGone = ({ hash }: Entry) => hash !== put && isSame(hash, photo, too, context.photos);
    return outcome(
      before.map((one) => (isGone(one) ? standing(known, context) : one)),
      context.field.on === 'listing' ? [] : before.filter(isGone).map(({ hash }): [string, string] => [hash, put]),
    );
  },
  say: () => 'with another picture in the place of one',
});

export const takePhotoOutVerb = defineVerb({
  name: 'photo-take-out',
  label: 'Take a picture out',
  kinds,
  schema: z.object({ verb: z.literal('photo-take-out'), photo: photoHash, alike }).strict(),
  apply: ({ photo, alike: too }, value, { photos }) =>
    outcome(entriesOf(value).filter(({ hash }) => !isSame(hash, photo, too, photos))),
  say: () => 'without one picture',
});

export const removePlacesVerb = defineVerb({
  name: 'photo-remove-at',
  label: 'Remove by place',
  kinds,
  schema: z
    .object({
      verb: z.literal('photo-remove-at'),
      /** From 1 for the main one; from −1 backwards for the last. */
      places: z
        .array(
          z
            .number()
            .int()
            .min(-60)
            .max(60)
            .refine((one) => one !== 0, 'The main photo is at place 1'),
        )
        .min(1, 'Name at least one place')
        .max(60),
    })
    .strict(),
  apply({ places }, value) {
    const before = entriesOf(value);
    const gone = new Set(places.map((one) => (one > 0 ? one - 1 : before.length + one)));
    return outcome(before.filter((_, at) => !gone.has(at)));
  },
  say: ({ places }) =>
    `without those at ${places.map((one) => (one === -1 ? 'the last place' : one < 0 ? `place ${-one} from the end` : `place ${one}`)).join(', ')}`,
});

export const orderPhotosVerb = defineVerb({
  name: 'photo-order',
  label: 'Put in order',
  kinds,
  schema: z
    .object({
      verb: z.literal('photo-order'),
      /** Where each stood, from 1, in the new order; what is not named follows behind. */
      order: z.array(z.number().int().min(1).max(60)).min(1, 'Say an order such as 3, 1, 2').max(60),
    })
    .strict(),
  apply({ order }, value) {
    const before = entriesOf(value);
    const places = [...new Set(order)].map((one) => one - 1).filter((at) => at < before.length);
    const rest = before.flatMap((_, at) => (places.includes(at) ? [] : [at]));
    return outcome([...places, ...rest].flatMap((at) => before[at] ?? []));
  },
  say: ({ order }) => `in the order ${order.join(', ')}`,
});

export const originalLastVerb = defineVerb({
  name: 'photo-original-last',
  label: 'Repeat the untouched main photo at the end',
  kinds,
  schema: z.object({ verb: z.literal('photo-original-last') }).strict(),
  apply(_args, value, { photos, field }) {
    const before = entriesOf(value);
    const [first] = before;
    const main = first && photos?.at(first.hash);
    if (!first || !main) return { refused: 'It has no photo' };
    // One that was not worked on stands there untouched already.
    if (!isMade(main) || before.at(-1)?.hash === main.original) return outcome(before);
    const { original, from } = main;
    const of = first.made?.of ?? first.hash;
    const last: Entry = { hash: original, made: field.on === 'listing' && original !== of ? { ...from, of } : null };
    return outcome([...before.filter((one) => one.hash !== original), last]);
  },
  say: () => 'with the untouched main one at the end',
});
