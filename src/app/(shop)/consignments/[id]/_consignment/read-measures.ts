import { parseSides } from '@/core/measure/length';
import { readNumber } from '@/core/measure/number';
import type { BoxView } from './view';

type Row = Omit<BoxView, 'code'> & { weight: string; sides: string };
type Read = Omit<BoxView, 'code'>;

/** What was written of boxes: weights in kilograms, sides in centimetres; or the first that is none. */
export function readMeasures(rows: readonly Row[]): { boxes: Read[] } | { wrong: { number: number; text: string } } {
  const boxes: Read[] = [];
  for (const { number, contents, isFull, weight, sides } of rows) {
    const kilograms = weight.trim() === '' ? null : readNumber(weight.replace(/kg$/i, '').trim());
    if (weight.trim() !== '' && (kilograms === null || kilograms <= 0))
      return { wrong: { number, text: `What box ${number} weighs is not understood; write it as in 9.4` } };
    const all =
      sides.trim() === '' ? null : parseSides(/[a-z"]/i.test(sides.replace(/x/gi, '')) ? sides : `${sides} cm`);
    if (sides.trim() !== '' && all === null)
      return {
        wrong: { number, text: `The sides of box ${number} are not understood; write them as in 40 × 30 × 30` },
      };
    boxes.push({
      number,
      contents,
      isFull,
      grams: kilograms === null ? null : Math.round(kilograms * 1_000),
      millimetres: all,
    });
  }
  return { boxes };
}
