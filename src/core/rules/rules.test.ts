import { suggestCategories } from '../listing';
import { sampleAccount, sampleRules } from '../testing.test-data';
import { compareRules, compileRules, marketRulesSchema, rulesFor } from '.';

test('an account’s exceptions are laid over the marketplace’s rules', () => {
  const own = rulesFor(sampleRules(), {
    titleMax: 90,
    newPerDay: 7,
    parts: { renewDays: 7 },
  });
  expect(own.title?.max).toBe(90);
  expect(own.pacing).toEqual({ perMinute: 600, newPerDay: 7 });
  expect(own.renewDays).toBe(7);
  expect(own.extras).toEqual(sampleRules().extras);
  expect(sampleRules().title?.max).toBe(45);
});

test('a longer title for one account is held to the pattern of the marketplace all the same', () => {
  const rules = sampleRules({
    title: { max: 45, pattern: 'product' },
  });
  expect(rulesFor(rules, { titleMax: 90 }).title).toEqual({ ...rules.title, max: 90 });
});

test('two versions compared: what changed, and which categories came and went', () => {
  const before = sampleRules();
  const after = sampleRules({
    version: 2,
    title: { max: 40 },
    categories: before.categories.filter((category) => category.id !== '12'),
  });
  expect(compareRules(before, after)).toEqual([
    { path: 'title', from: { max: 45 }, to: { max: 40 } },
    { path: 'category Books', from: 'Books', to: null },
  ]);
  expect(compareRules(before, sampleRules())).toEqual([]);
});

test('the form is checked on reading, and compiled once', () => {
  const rules = sampleRules();
  expect(marketRulesSchema.parse(rules)).toEqual(rules);
  expect(marketRulesSchema.safeParse({ ...rules, price: { min: 'low' } }).success).toBe(false);
  expect(compileRules(rules)).toBe(compileRules(rules));
});

test('categories are suggested from our own category and the title, with the reason', () => {
  const [best] = suggestCategories(sampleAccount().compiled, {
    ownCategory: 'cameras/slr',
    title: 'Brask film camera',
  });
  expect(best).toMatchObject({ id: '11' });
  expect(best?.why).toContain('camera');
  expect(suggestCategories(sampleAccount().compiled, { ownCategory: 'garden', title: 'Spade' })).toEqual([]);
});
