import { NettingError } from '../../core/errors';
import { drawLabel, type LabelSize, type LabelWords, labelPlaces, type Mark, pageOf } from '../../core/label';
import type { Drawn, DrawnPage } from '../../files/pdf';
import { symbolsOf } from '../../files/symbol';
import { drawLine, lineWidth } from '../../photos/letters';

/** Marks of a label as they are drawn at a place of the page: words become outlines. */
export const drawnAt = (marks: readonly Mark[], xMm: number, yMm: number): Drawn[] =>
  marks.map((mark): Drawn => {
    if (mark.is === 'bars')
      return { is: 'bars', bars: mark.bars.map((bar) => ({ ...bar, x: bar.x + xMm, y: bar.y + yMm })) };
    return { is: 'path', x: mark.x + xMm, y: mark.y + yMm, path: drawLine(mark.text, mark.size).path };
  });

export type LabelOrder = {
  size: LabelSize;
  words: readonly LabelWords[];
  startAt: number;
  prefers: 'linear' | 'square';
};

/** Labels on their pages, in their order. A code that cannot be read at that size is said, with its label. */
export function drawLabels({ size, words, startAt, prefers }: LabelOrder): DrawnPage[] {
  const places = labelPlaces(size, words.length, startAt);
  const pages: DrawnPage[] = [];
  for (const [index, one] of words.entries()) {
    const place = places[index];
    if (!place) continue;
    const marks = drawLabel(size, one, symbolsOf(one.code), lineWidth, prefers);
    if (!marks)
      throw new NettingError('invalid', `The code of “${one.title || one.code}” cannot be read on so small a label`, {
        field: 'size',
        fix: 'Choose a larger label',
      });
    while (pages.length <= place.page) pages.push({ ...pageOf(size), drawn: [] });
    pages[place.page]?.drawn.push(...drawnAt(marks, place.xMm, place.yMm));
  }
  return pages;
}
