import { onItem } from '../edit';
import { stepsOnLot } from '.';

const lot = {
  name: 'Tray',
  price: 1_000,
  quantity: 4,
  condition: 'good' as const,
  place: 'A1',
  comment: '',
  grams: 300,
};

test('the steps of the workbench, each seeing those before; what becomes different is told', () => {
  const lower = onItem('price', { verb: 'percent', basisPoints: -500 });
  const ending = onItem('price', { verb: 'ending', rounding: 'ninety' });
  expect(stepsOnLot([lower, ending], lot)).toEqual({ set: { price: 990 } });
  expect(stepsOnLot([lower], lot)).toEqual({ set: { price: 950 } });
  const text = onItem('conditionNote', { verb: 'set', value: 'Washed' });
  const graded = onItem('condition', { verb: 'set', value: 'fair' });
  expect(stepsOnLot([text, graded], lot)).toEqual({ set: { comment: 'Washed', condition: 'fair' } });
  expect(stepsOnLot([onItem('quantity', { verb: 'add', by: 2 })], lot)).toEqual({ set: { quantity: 6 } });
  expect(stepsOnLot([onItem('location', { verb: 'set', value: 'A1' })], lot)).toEqual({ set: {} });
});

test('what a lot has not, or what cannot be, is refused with a reason', () => {
  expect(stepsOnLot([onItem('title', { verb: 'set', value: 'x' })], lot)).toEqual({
    refused: 'A lot has no title to change',
  });
  expect(stepsOnLot([onItem('quantity', { verb: 'add', by: -9 })], lot)).toMatchObject({
    refused: expect.stringContaining('Only 4'),
  });
  expect(stepsOnLot([onItem('price', { verb: 'percent', basisPoints: 100 })], { ...lot, price: null })).toMatchObject({
    refused: expect.stringContaining('no price'),
  });
});
