import { dataOf, numberOf, textOf } from '../../kit/checks';
import type { Json, Problem } from '../../kit/types';
import type { Box, Shipment } from './types';

export const mostGrams = 23_000;
export const longestMm = 630;

const listOf = (value: Json | undefined): Json[] => (Array.isArray(value) ? value : []);

/** Boxes as they were sent. */
export const readBoxes = (shipment: string, given: Json | undefined): Box[] =>
  listOf(given).map((one, index) => {
    const box = dataOf(one);
    const [a = 0, b = 0, c = 0] = listOf(box.millimetres).map(numberOf);
    return {
      number: index + 1,
      grams: numberOf(box.grams),
      millimetres: [a, b, c],
      contents: listOf(box.contents).map((line) => {
        const { number, quantity } = dataOf(line);
        return { number: textOf(number), quantity: numberOf(quantity) };
      }),
      code: `${shipment}${String(index + 1).padStart(3, '0')}`,
      tracking: null,
    };
  });

/**
 * What is wrong with boxes: too heavy, too long, empty, or with other contents than the shipment.
 * @param gramsOf what one unit weighs
 */
export function boxProblems(
  { units }: Pick<Shipment, 'units'>,
  boxes: readonly Box[],
  gramsOf: (product: string) => number,
): Problem[] {
  const problems: Problem[] = [];
  const say = (pointer: string, detail: string) => problems.push({ pointer, detail });
  if (boxes.length === 0) say('/boxes', 'There is no box.');
  for (const [index, box] of boxes.entries()) {
    const at = `/boxes/${index}`;
    if (box.grams < 1) say(`${at}/grams`, `Box ${box.number} has no weight.`);
    if (box.grams > mostGrams) say(`${at}/grams`, `Box ${box.number} is heavier than ${mostGrams / 1_000} kg.`);
    if (box.millimetres.some((side) => side < 1)) say(`${at}/millimetres`, `Box ${box.number} has no size.`);
    if (box.millimetres.some((side) => side > longestMm))
      say(`${at}/millimetres`, `A side of box ${box.number} is longer than ${longestMm / 10} cm.`);
    if (box.contents.length === 0) say(`${at}/contents`, `Box ${box.number} is empty.`);
    const least = box.contents.reduce((sum, { number, quantity }) => {
      const product = units.find((one) => one.number === number)?.product;
      return sum + (product ? gramsOf(product) * quantity : 0);
    }, 0);
    if (box.grams > 0 && box.grams < least)
      say(`${at}/grams`, `Box ${box.number} weighs less than what is in it: ${least} g at least.`);
  }
  const packed = new Map<string, number>();
  for (const { number, quantity } of boxes.flatMap((box) => box.contents))
    packed.set(number, (packed.get(number) ?? 0) + quantity);
  for (const { number, quantity } of units) {
    const there = packed.get(number) ?? 0;
    if (there !== quantity) say('/boxes', `${there} of ${number} are in boxes, the plan has ${quantity}.`);
    packed.delete(number);
  }
  for (const number of packed.keys()) say('/boxes', `${number} does not belong into this shipment.`);
  return problems;
}
