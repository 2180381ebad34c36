import {
  contentElsewhere,
  elsewhere,
  type Listed,
  marketsElsewhere,
  sellerElsewhere,
  shotOf,
} from '../../demo/elsewhere';
import { toldBy } from '../../src/core/gather';
import { joinThings, nothingKnown, type Pair, type PhotoPrint, type Thing } from '../../src/core/match';
import { photoPrint } from '../../src/photos/print';
import { rulesOfAll } from './rules-of-all.test-data';

const count = 300;

type Labelled = { things: Thing[]; thingOf: Map<string, number> };

/** What each of the listings tells, as it would be read from its marketplace, with what its photos look like. */
async function labelledSet(): Promise<Labelled> {
  const rules = new Map((await rulesOfAll()).map((one) => [one.market, one.rules]));
  const listed = elsewhere(count);
  const prints = new Map<string, PhotoPrint>();
  const keyOf = (one: Listed, at: number) => `${one.thing} ${JSON.stringify(one.shots[at])}`;
  for (const one of listed)
    for (const [at, shot] of one.shots.entries())
      if (!prints.has(keyOf(one, at))) prints.set(keyOf(one, at), await photoPrint(await shotOf(one.thing, shot, 280)));
  const thingOf = new Map<string, number>();
  const things = listed.flatMap((one, index): Thing[] => {
    const found = rules.get(one.market);
    if (!found) return [];
    const account = sellerElsewhere(one.market, found);
    const content = contentElsewhere(one, account);
    const { fields, grades } = toldBy(content, account);
    const id = `${one.market}-${index}`;
    thingOf.set(id, one.thing);
    return [
      {
        ...nothingKnown,
        id,
        place: one.market,
        sku: typeof content.sku === 'string' ? content.sku : '',
        title: fields.title ?? '',
        brand: fields.brand ?? '',
        model: fields.model ?? '',
        price: fields.price ?? null,
        grades,
        photos: one.shots.map((_, at) => prints.get(keyOf(one, at)) as PhotoPrint), // all were made above
      },
    ];
  });
  return { things, thingOf };
}

const pairsIn = (groups: readonly (readonly Thing[])[]) =>
  groups.flatMap((group) => group.flatMap((a, at) => group.slice(at + 1).map((b) => [a, b] as const)));

test('three hundred things on four marketplaces are recognised: nothing joins by itself that is not one', async () => {
  const { things, thingOf } = await labelledSet();
  const isOne = (a: Thing, b: Thing) => thingOf.get(a.id) === thingOf.get(b.id);
  const byThing = new Map<number, Thing[]>();
  for (const thing of things) {
    const label = thingOf.get(thing.id) ?? -1;
    byThing.set(label, [...(byThing.get(label) ?? []), thing]);
  }
  const truth = pairsIn([...byThing.values()]).length;

  const alone = joinThings(things);
  const byItself = pairsIn(alone.groups);
  const wrong = byItself.filter(([a, b]) => !isOne(a, b));

  // Whoever is asked knows the things: questions are answered by their labels until none is left.
  const decisions: { a: string; b: string; isSame: boolean }[] = [];
  let now = alone;
  for (let round = 0; round < 10 && now.questions.length; round++) {
    const answer = ({ a, b }: Pair) => ({ a: a.id, b: b.id, isSame: isOne(a, b) });
    decisions.push(...now.questions.map(answer));
    now = joinThings(things, decisions);
  }
  const after = pairsIn(now.groups);
  const right = after.filter(([a, b]) => isOne(a, b)).length;
  process.stdout.write(
    `${things.length} listings of ${byThing.size} things, ${truth} pairs; by themselves ${byItself.length} joined, ${wrong.length} wrongly; ` +
      `${decisions.length} questions; recall alone ${((byItself.length - wrong.length) / truth).toFixed(3)}, answered ${(right / truth).toFixed(3)}\n`,
  );
  expect(marketsElsewhere.every((market) => things.some((one) => one.place === market))).toBe(true);
  expect(wrong.map(([a, b]) => [a.title, b.title])).toEqual([]);
  expect(byItself.length).toBeGreaterThan(truth / 3);
  expect(after.every(([a, b]) => isOne(a, b))).toBe(true);
  expect(right / truth).toBeGreaterThanOrEqual(0.9);
  expect(decisions.length).toBeLessThan(things.length);
}, 300_000);
