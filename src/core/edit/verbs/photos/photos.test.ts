import fc from 'fast-check';
import { invert } from '../../../change';
import { fieldsFor } from '../../../field';
import { chosenPhotos, type Overrides } from '../../../listing';
import type { Layer } from '../../../photo';
import { hashOf, knowledgeOf, photoNamed } from '../../../photo/known.test-data';
import { madeReference, readPhotoReference } from '../../../photo/reference';
import { sampleItem } from '../../../testing.test-data';
import { applySteps, type Do, type Step, type StepContext, sayStep, stepSchema } from '../..';

const catalogue = fieldsFor();
const names = ['a', 'b', 'c', 'd', 'card'];
const contextOf = (photos = knowledgeOf(names)): StepContext => ({
  catalogue,
  currency: 'EUR',
  listed: ({ item }, _account, field) => (field === 'photos' ? item.photos.map((one) => one.hash) : undefined),
  listingField: (_account, field) => catalogue.listing(field),
  currencyOf: () => 'EUR',
  amountThere: (_account, amount) => amount,
  boxes: [],
  soldFor: () => null,
  suggestedCategory: () => null,
  termsOf: () => null,
  priceFor: () => null,
  photos,
});
const layer: Layer = {
  badge: 7,
  art: { kind: 'words', shape: 'pill', words: 'Ships tomorrow', ground: '#155e52', ink: '#ffffff', ratio: 4 },
  place: { anchor: 'top-left', dx: 30, dy: 30, size: 250 },
};
const step = (what: Record<string, unknown>, where: unknown = { on: 'item' }): Step =>
  stepSchema.parse({ field: 'photos', where, do: what });
const record = (photos: string[], own: string[] | null = null) => ({
  item: sampleItem({ photos: photos.map(photoNamed) }),
  overrides: new Map<number, Overrides>([[1, own ? { photos: own } : {}]]),
});
const apply = (steps: Step[], photos: string[], own: string[] | null = null, context = contextOf()) => {
  const result = applySteps(steps, record(photos, own), context);
  if ('refused' in result) throw new Error(result.refused);
  return result;
};
const nameOf = (hash: string) => names.find((one) => hashOf(one) === hash) ?? 'made';
const order = (steps: Step[], photos: string[]) =>
  apply(steps, photos).record.item.photos.map((one) => nameOf(one.hash));

describe('order', () => {
  const card = hashOf('card');
  test.each([
    ['first', ['card', 'a', 'b', 'c']],
    ['second', ['a', 'card', 'b', 'c']],
    ['before-last', ['a', 'b', 'card', 'c']],
    ['last', ['a', 'b', 'c', 'card']],
  ])('a picture is put in %s, once however often', (at, expected) => {
    const put = step({ verb: 'photo-put', photo: card, at });
    expect(order([put], ['a', 'b', 'c'])).toEqual(expected);
    expect(order([put, put], ['a', 'b', 'c'])).toEqual(expected);
  });

  test('one that has no photo yet gets the picture alone', () =>
    expect(order([step({ verb: 'photo-put', photo: card, at: 'second' })], [])).toEqual(['card']));

  test('a picture gives its place to another, also where it is another take of it', () => {
    const exact = step({ verb: 'photo-replace', photo: hashOf('b'), put: card });
    expect(order([exact], ['a', 'b', 'c'])).toEqual(['a', 'card', 'c']);
    // The knowledge of these tests calls pictures alike whose hashes begin alike.
    const alike = step({ verb: 'photo-take-out', photo: hashOf('c'), alike: true });
    expect(order([alike], ['a', 'c', 'card'])).toEqual(['a']);
    expect(order([step({ verb: 'photo-take-out', photo: hashOf('c') })], ['a', 'c', 'c'])).toEqual(['a']);
  });

  test('places are removed from either end, the first are kept, an order is carried over', () => {
    expect(order([step({ verb: 'photo-remove-at', places: [2, -1] })], ['a', 'b', 'c', 'd'])).toEqual(['a', 'c']);
    expect(order([step({ verb: 'keep-first', count: 2 })], ['a', 'b', 'c'])).toEqual(['a', 'b']);
    expect(order([step({ verb: 'photo-order', order: [3, 1] })], ['a', 'b', 'c', 'd'])).toEqual(['c', 'a', 'b', 'd']);
    expect(order([step({ verb: 'photo-order', order: [4, 2] })], ['a', 'b'])).toEqual(['b', 'a']);
  });

  test('the untouched main photo is repeated at the end, where it was worked on', () => {
    const last = step({ verb: 'photo-original-last' });
    expect(order([last], ['a', 'b'])).toEqual(['a', 'b']);
    expect(order([step({ verb: 'photo-backdrop' }), last, last], ['a', 'b'])).toEqual(['made', 'b', 'a']);
  });
});

describe('made anew', () => {
  const all = { which: 'all' };

  test('only those that are meant, each of its own original, whatever was done before', () => {
    const knowledge = knowledgeOf(names);
    const context = contextOf(knowledge);
    const { item } = apply(
      [
        step({ verb: 'photo-backdrop', ...all }),
        step({ verb: 'photo-badge', layer }),
        step({ verb: 'photo-turn', degrees: 90, which: 'others' }),
      ],
      ['a', 'b'],
      null,
      context,
    ).record;
    const [main, other] = item.photos.map((photo) => knowledge.at(photo.hash));
    expect(main).toMatchObject({
      original: hashOf('a'),
      recipe: { turn: 0, backdrop: { reach: 12 }, layers: [{ badge: 7 }] },
    });
    expect(other).toMatchObject({
      original: hashOf('b'),
      width: 1_200,
      height: 1_600,
      recipe: { turn: 90, layers: [] },
    });
  });

  test('a badge stands once, has its own place on single pictures, is drawn otherwise and taken off', () => {
    const knowledge = knowledgeOf(names);
    const place = { ...layer.place, anchor: 'bottom-right' as const };
    const put = step({ verb: 'photo-badge', layer, apart: { [hashOf('b')]: place }, ...all });
    const steps = [put, put];
    const seen = (more: Step[]) =>
      apply([...steps, ...more], ['a', 'b'], null, contextOf(knowledge)).record.item.photos.map(
        (photo) => knowledge.at(photo.hash)?.recipe.layers ?? [],
      );
    expect(seen([]).map((layers) => layers.map((one) => one.place.anchor))).toEqual([['top-left'], ['bottom-right']]);
    const art = { ...layer.art, words: 'Ships today' };
    const [a, b] = seen([step({ verb: 'photo-rebadge', badge: 7, art })]);
    expect([a?.[0]?.art, b?.[0]?.art, b?.[0]?.place.anchor]).toEqual([art, art, 'bottom-right']);
    expect(seen([step({ verb: 'photo-unbadge', badge: 8 })]).flat()).toHaveLength(2);
    expect(order([...steps, step({ verb: 'photo-unbadge' })], ['a', 'b'])).toEqual(['a', 'b']);
  });

  test('a square lies around what stands in front; what cannot be read is refused with a word', () => {
    const knowledge = knowledgeOf(names);
    const { item } = apply([step({ verb: 'photo-crop', to: 'square' })], ['a'], null, contextOf(knowledge)).record;
    const crop = knowledge.at(item.photos[0]?.hash ?? '')?.recipe.crop;
    expect(item.photos[0]?.width).toBe(item.photos[0]?.height);
    expect(crop && crop.x <= 0.25 && crop.x + crop.width >= 0.75).toBe(true);
    const blind = contextOf(knowledgeOf(names, null));
    expect(applySteps([step({ verb: 'photo-crop', to: 'square' })], record(['a']), blind)).toMatchObject({
      refused: 'A photo of it cannot be read',
    });
    expect(applySteps([step({ verb: 'photo-auto' })], record([]), blind)).toMatchObject({ refused: 'It has no photo' });
  });
});

describe('for chosen accounts only', () => {
  const there = { on: 'accounts', accounts: [1] };

  test('the item stays as it is; the account gets what was made of its photos', () => {
    const { record: next, changes } = applySteps(
      [step({ verb: 'photo-badge', layer }, there)],
      record(['a', 'b']),
      contextOf(),
    ) as Extract<ReturnType<typeof applySteps>, { record: unknown }>;
    expect(next.item.photos.map((one) => nameOf(one.hash))).toEqual(['a', 'b']);
    expect(changes.map((one) => one.target.account)).toEqual([1]);
    const own = next.overrides.get(1)?.photos as string[];
    expect(own.map((one) => readPhotoReference(one).made?.of ?? null)).toEqual([hashOf('a'), null]);
    const chosen = chosenPhotos(own, next.item.photos);
    expect(chosen.map((one) => nameOf(one.hash))).toEqual(['made', 'b']);
    expect(chosen[0]).toMatchObject({ width: 1_600, height: 1_200 });
  });

  test('a picture that only the account gets stands for itself', () => {
    const { record: next } = apply([step({ verb: 'photo-put', photo: hashOf('card') }, there)], ['a']);
    expect(
      chosenPhotos(next.overrides.get(1)?.photos as string[], next.item.photos).map((one) => nameOf(one.hash)),
    ).toEqual(['a', 'card']);
  });

  test('what the account has of its own is made of what took the place of the item’s photo, and keeps its badge', () => {
    const knowledge = knowledgeOf(names);
    const context = contextOf(knowledge);
    const first = apply([step({ verb: 'photo-badge', layer }, there)], ['a', 'b'], null, context);
    const own = first.record.overrides.get(1)?.photos as string[];
    const later = apply([step({ verb: 'photo-backdrop', which: 'all' })], ['a', 'b'], own, context);
    const now = later.record.overrides.get(1)?.photos as string[];
    const made = now.map((one) => knowledge.at(readPhotoReference(one).hash));
    expect(made[0]?.recipe).toMatchObject({ backdrop: { reach: 12 }, layers: [{ badge: 7 }] });
    expect(made[1]?.recipe).toMatchObject({ backdrop: { reach: 12 }, layers: [] });
  });
});

describe('a clip', () => {
  const make = (part = {}): Step => stepSchema.parse({ field: 'clip', do: { verb: 'clip-make', ...part } });
  const clipOf = (steps: Step[], photos: string[]) => {
    const { item } = apply(steps, photos).record;
    return item.clip;
  };

  test('follows from its photos, each once, and is taken off again', () => {
    const made = clipOf([make()], ['a', 'b', 'a']);
    expect(made).toHaveLength(64);
    expect(clipOf([make()], ['a', 'b'])).toBe(made);
    expect(clipOf([make(), stepSchema.parse({ field: 'clip', do: { verb: 'clear' } })], ['a', 'b'])).toBe('');
    expect(applySteps([make()], record(['a']), contextOf())).toMatchObject({
      refused: 'A clip needs two photos or more',
    });
    expect(stepSchema.safeParse({ field: 'clip', do: { verb: 'clip-make', seconds: 16 } }).success).toBe(false);
  });
});

const which = fc.constantFrom('first', 'others', 'all');
const anyVerb: fc.Arbitrary<Record<string, unknown>> = fc.oneof(
  fc.record({
    verb: fc.constant('photo-put'),
    photo: fc.constantFrom(...names.map(hashOf)),
    at: fc.constantFrom('first', 'second', 'before-last', 'last'),
  }),
  fc.record({ verb: fc.constant('photo-take-out'), photo: fc.constantFrom(...names.map(hashOf)), alike: fc.boolean() }),
  fc.record({
    verb: fc.constant('photo-replace'),
    photo: fc.constantFrom(...names.map(hashOf)),
    put: fc.constantFrom(...names.map(hashOf)),
  }),
  fc.record({
    verb: fc.constant('photo-remove-at'),
    places: fc.array(fc.constantFrom(1, 2, 3, -1), { minLength: 1, maxLength: 2 }),
  }),
  fc.record({
    verb: fc.constant('photo-order'),
    order: fc.uniqueArray(fc.integer({ min: 1, max: 5 }), { minLength: 1, maxLength: 4 }),
  }),
  fc.record({ verb: fc.constant('keep-first'), count: fc.integer({ min: 0, max: 4 }) }),
  fc.record({
    verb: fc.constant('photo-crop'),
    to: fc.constantFrom('square', 'portrait'),
    fit: fc.constantFrom('close', 'whole'),
    which,
  }),
  fc.record({ verb: fc.constant('photo-turn'), degrees: fc.constantFrom(90, -90, 180, 2.5, -7), which }),
  fc.record({ verb: fc.constant('photo-light'), brightness: fc.integer({ min: -100, max: 100 }), which }),
  fc.record({ verb: fc.constantFrom('photo-auto', 'photo-backdrop', 'photo-plain', 'photo-unbadge'), which }),
  fc.record({ verb: fc.constant('photo-badge'), layer: fc.constant(layer), which }),
  fc.constant({ verb: 'photo-original-last' }),
);
const onItem = anyVerb.map((what) => step(what));
const anywhere = fc
  .tuple(anyVerb, fc.constantFrom({ on: 'item' }, { on: 'accounts', accounts: [1] }, { on: 'overrides' }))
  .map(([what, where]) => step(what, where));
const photos = fc.array(fc.constantFrom('a', 'b', 'c', 'd'), { maxLength: 6 });

describe('laws', () => {
  test('every series undone gives the old photos back, and what accounts had of their own', () => {
    fc.assert(
      fc.property(
        photos,
        fc.option(photos),
        fc.array(anywhere, { minLength: 1, maxLength: 4 }),
        (before, own, steps) => {
          const start = record(before, own && own.map(hashOf));
          const result = applySteps(steps, start, contextOf());
          if ('refused' in result) return;
          for (const change of result.changes) {
            const field = change.target.account === undefined ? catalogue.item('photos') : catalogue.listing('photos');
            if (!field) throw new Error('no such field');
            expect(invert(change, change.to, field)).toEqual({ kind: 'restore', to: change.from });
            const was =
              change.target.account === undefined
                ? start.item.photos.map((one) => one.hash)
                : (own?.map(hashOf) ?? null);
            expect(change.from).toEqual(was);
          }
        },
      ),
      { numRuns: 300 },
    );
  });

  test('the same steps on the same originals make the same pictures', () => {
    fc.assert(
      fc.property(photos, fc.array(onItem, { minLength: 1, maxLength: 4 }), (before, steps) => {
        const knowledge = contextOf();
        const once = applySteps(steps, record(before), knowledge);
        expect(applySteps(steps, record(before), knowledge)).toEqual(once);
      }),
      { numRuns: 100 },
    );
  });

  test('an account’s own choice keeps its count and its order when the item’s photos are made anew', () => {
    const making = anyVerb
      .filter(({ verb }) =>
        ['photo-crop', 'photo-turn', 'photo-light', 'photo-auto', 'photo-backdrop', 'photo-badge'].includes(
          String(verb),
        ),
      )
      .map((what) => step(what));
    const some = fc.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd'), { minLength: 1, maxLength: 4 });
    fc.assert(
      fc.property(some, fc.array(making, { minLength: 1, maxLength: 3 }), fc.nat(), (before, steps, turn) => {
        const knowledge = knowledgeOf(names);
        const own = before.map((_, at) => hashOf(before[(at + turn) % before.length] ?? ''));
        const result = applySteps(steps, record(before, own), contextOf(knowledge));
        if ('refused' in result) throw new Error(result.refused);
        const kept = result.record.overrides.get(1)?.photos as string[];
        const chosen = chosenPhotos(kept, result.record.item.photos);
        expect(chosen.map((one) => knowledge.at(one.hash)?.original)).toEqual(own);
      }),
    );
  });

  test('every step is said in words', () => {
    fc.assert(fc.property(anywhere, (one) => expect(sayStep(one, 'EUR', catalogue).length).toBeGreaterThan(12)));
    const what = { verb: 'photo-badge', layer, apart: {}, which: 'first' } as Do;
    expect(sayStep({ field: 'photos', where: { on: 'item' }, do: what }, 'EUR', catalogue)).toBe(
      'photos with “Ships tomorrow” on the main one',
    );
    expect(madeReference({ hash: 'x', width: 3, height: 2 }, 'y')).toBe('x@3x2:y');
  });
});
