import { conditionGrades, conditionLabel } from './condition';

test('new is what nobody used, and nothing else', () => {
  expect(conditionGrades.filter((one) => one.isNew).map((one) => one.id)).toEqual(['new', 'new-open']);
});

test('a grade has its word; none has none', () => {
  expect(conditionLabel('poor')).toBe('Worn');
  expect(conditionLabel(null)).toBe('');
});
