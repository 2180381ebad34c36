import { operationSchema } from '@/core/edit/operation';
import { readStep, type StepDraft, sayStep } from './steps';

const draft = (op: StepDraft['op'], value: string, part: Partial<StepDraft> = {}): StepDraft => ({
  key: 1,
  op,
  value,
  rounding: 'none',
  floor: '',
  ...part,
});

test.each([
  ['price-percent', '-5', { basisPoints: -500 }],
  ['price-percent', '+2,5 %', { basisPoints: 250 }],
  ['price-percent', '−10', { basisPoints: -1_000 }],
  ['price-amount', '-2.50', { amount: -250 }],
  ['price-amount', '1,20', { amount: 120 }],
  ['price-set', '19,99', { amount: 1_999 }],
  ['quantity-add', '+3', { delta: 3 }],
  ['quantity-add', '-1', { delta: -1 }],
  ['quantity-set', '0', { quantity: 0 }],
] as const)('%s typed as %s', (op, value, expected) => {
  const step = readStep(draft(op, value));
  expect(step).toMatchObject({ op, ...expected });
  // What the workbench sends is what the server takes.
  expect(operationSchema.safeParse(step).success).toBe(true);
});

test.each([
  ['price-percent', ''],
  ['price-percent', '0'],
  ['price-percent', 'five'],
  ['price-percent', '-99'],
  ['price-amount', '0'],
  ['price-set', 'free'],
  ['quantity-add', '1.5'],
  ['quantity-add', '0'],
  ['quantity-set', '-1'],
] as const)('%s typed as “%s” is told, not taken', (op, value) =>
  expect(typeof readStep(draft(op, value))).toBe('string'),
);

test('ending and floor go along', () => {
  expect(readStep(draft('price-percent', '-5', { rounding: 'ninetyNine', floor: '12,00' }))).toMatchObject({
    rounding: 'ninetyNine',
    floor: 1_200,
  });
});

test.each([
  ['price-percent', '-5', 'price −5 %'],
  ['price-amount', '2.50', 'price +2.50'],
  ['price-set', '20', 'price set to €20.00'],
  ['quantity-add', '-2', 'stock −2'],
  ['quantity-set', '4', 'stock set to 4'],
] as const)('%s %s is said as “%s”', (op, value, words) => {
  const step = readStep(draft(op, value));
  if (typeof step === 'string') throw new Error(step);
  expect(sayStep(step)).toBe(words);
});
