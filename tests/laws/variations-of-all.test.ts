import fc from 'fast-check';
import { Checks } from '../../marketplaces/kit/checks';
import { checkVariants, variantsOf } from '../../marketplaces/kit/variants';
import { markets } from '../../marketplaces/list';
import { type Axis, combinations, regenerate, unitsOf, type Variation } from '../../src/core/item';
import { computeListing, fitVariations, ownLimits } from '../../src/core/listing';
import type { MarketRules } from '../../src/core/rules';
import { sampleItem } from '../../src/core/testing.test-data';
import { connectors } from '../../src/markets';
import type { Request, Session } from '../../src/markets/session';
import { accountWith, rulesOfAll } from './rules-of-all.test-data';

let all: { market: string; name: string; rules: MarketRules }[] = [];
beforeAll(async () => {
  all = await rulesOfAll();
});

const word = fc.stringMatching(/^[a-zA-Z0-9éß]{1,8}$/);
const axes: fc.Arbitrary<Axis[]> = fc.uniqueArray(
  fc.record({
    name: word,
    values: fc.uniqueArray(word, { minLength: 1, maxLength: 5, selector: (one) => one.toLowerCase() }),
  }),
  { minLength: 1, maxLength: 3, selector: (one) => one.name.toLowerCase() },
);
const cell = fc.record({
  on: fc.boolean(),
  quantity: fc.integer({ min: 0, max: 9 }),
  price: fc.option(
    fc.oneof(
      fc.record({ kind: fc.constant('own' as const), amount: fc.integer({ min: 500, max: 50_000 }) }),
      fc.record({ kind: fc.constant('difference' as const), amount: fc.integer({ min: -900, max: 5_000 }) }),
    ),
    { nil: null },
  ),
});
/** An item with a table of combinations, whatever it holds. */
const varied = axes.chain((some) =>
  fc.array(cell, { minLength: combinations(some).length, maxLength: combinations(some).length }).map((cells) => {
    const variations = regenerate(some, []).map((row, index): Variation => ({ ...row, ...cells[index] }));
    return sampleItem({ axes: some, variations, quantity: unitsOf(variations), price: 4_000 });
  }),
);
const tell = (rules: MarketRules, item: ReturnType<typeof sampleItem>, overrides = {}) =>
  computeListing({ item, overrides, account: accountWith(rules) });
const each = (law: (rules: MarketRules, item: ReturnType<typeof sampleItem>) => void, numRuns = 40) =>
  fc.assert(
    fc.property(varied, (item) => {
      for (const { rules } of all) law(rules, item);
    }),
    { numRuns },
  );

test('nobody is offered more than is there, and nothing that is switched off', () =>
  each((rules, item) => {
    const { content } = tell(rules, item);
    expect(Number(content.quantity)).toBeLessThanOrEqual(unitsOf(item.variations));
    const offered = (content.variations as { rows?: { values: string[]; quantity: number }[] } | undefined)?.rows ?? [];
    for (const row of offered) {
      const own = item.variations.find((one) => one.values.join() === row.values.join());
      expect(own).toMatchObject({ on: true, quantity: row.quantity });
    }
  }));

test('combinations are sent only where they are taken and fit; everywhere else the listing is blocked or one is left', () =>
  each((rules, item) => {
    const made = tell(rules, item);
    const issue = made.issues.find((one) => one.code === 'variations');
    const fitted = fitVariations(item, ownLimits(rules), {});
    expect(Boolean(issue)).toBe(fitted.problem !== null);
    if (issue) {
      expect(made.ready).toBe(false);
      expect(issue.message).toMatch(/\w/);
    }
    if (!ownLimits(rules)) expect(made.content).not.toHaveProperty('variations');
  }));

test('narrowed to one combination every marketplace can have it, at that combination’s price', () =>
  each((rules, item) => {
    const chosen = item.variations.find((row) => row.on);
    if (!chosen) return;
    const narrowing = Object.fromEntries(item.axes.map((axis, index) => [axis.name, chosen.values[index] ?? '']));
    const made = tell(rules, item, { variations: narrowing });
    expect(made.issues.filter((one) => one.code === 'variations')).toEqual([]);
    expect(made.content).not.toHaveProperty('variations');
    expect(Number(made.content.quantity)).toBe(Math.min(rules.quantity.max, chosen.quantity));
  }));

test('a narrowing by one axis never adds anything', () =>
  each((rules, item) => {
    const [axis] = item.axes;
    const value = axis?.values[0];
    if (!axis || value === undefined) return;
    const limits = rules.variations ?? { maxAxes: 9, maxCombinations: 9_999 };
    const whole = fitVariations(item, limits, {});
    const part = fitVariations(item, limits, { [axis.name]: value });
    expect(part.rows.length).toBeLessThanOrEqual(whole.rows.length);
    expect(part.axes.map((one) => one.name)).not.toContain(axis.name);
  }));

test('computing twice is the same, with variations too', () =>
  each((rules, item) => expect(tell(rules, item)).toEqual(tell(rules, item)), 15));

/** What a connector would send for a new listing. */
async function sent(market: string, content: ReturnType<typeof tell>['content']): Promise<Record<string, never>> {
  const asked: Request[] = [];
  const session: Session = {
    async send(request) {
      asked.push(request);
      return { ...(request.body as object), id: '7', state: 'live', link: 'http://127.0.0.1/listing/7' };
    },
  };
  const connector = connectors.find((one) => one.market === market);
  await connector?.create(session, { content, photoIds: ['p'], idempotencyKey: 'k' });
  return JSON.parse(JSON.stringify(asked[0]?.body ?? {})) as Record<string, never>;
}

test.each(['hallowick', 'oakhand', 'shopfront'])(
  'what is told to %s is what it takes, with every stock and price',
  async (name) => {
    const market = markets.find((one) => one.name === name);
    const rules = all.find((one) => one.market === name)?.rules;
    if (!market || !rules) throw new Error(name);
    await fc.assert(
      fc.asyncProperty(varied, async (item) => {
        const { content, issues } = tell(rules, item);
        if (issues.some((one) => one.code === 'variations')) return;
        const body = await sent(name, content);
        const field = market.variantsField ?? '';
        const checks = new Checks();
        checkVariants(checks, `/${field}`, body[field], market.firstRules);
        expect(checks.problems).toEqual([]);
        const there = variantsOf(market, body);
        const on = item.variations.filter((row) => row.on);
        if (there.length === 0) return;
        expect(there.map((row) => row.stock)).toEqual(on.map((row) => row.quantity));
        expect(there.every((row) => row.cents !== null && row.cents >= 0)).toBe(true);
      }),
      { numRuns: 40 },
    );
  },
);

test('a change of the table alone sends the table alone', async () => {
  for (const name of ['hallowick', 'oakhand', 'shopfront']) {
    const connector = connectors.find((one) => one.market === name);
    const rules = all.find((one) => one.market === name)?.rules;
    if (!connector || !rules) throw new Error(name);
    const item = sampleItem({
      axes: [{ name: 'Colour', values: ['black', 'tan'] }],
      variations: regenerate([{ name: 'Colour', values: ['black', 'tan'] }], []),
    });
    const asked: Request[] = [];
    const session: Session = {
      async send(request) {
        asked.push(request);
        return { ...(request.body as object), id: '7', state: 'live', link: 'http://127.0.0.1/listing/7' };
      },
    };
    const { content } = tell(rules, item);
    await connector.change(session, '7', { content, photoIds: [], idempotencyKey: 'k' }, ['variations']);
    expect(Object.keys(asked[0]?.body as object)).toEqual([markets.find((one) => one.name === name)?.variantsField]);
  }
});
