import { NettingError } from '../../core/errors';
import {
  type BoxWords,
  boxLabelSize,
  contentsCode,
  drawBoxLabel,
  drawContentsLabel,
  drawPackingList,
  listPage,
  type Mark,
} from '../../core/label';
import type { DrawnPage } from '../../files/pdf';
import { symbolsOf } from '../../files/symbol';
import { lineWidth } from '../../photos/letters';
import { drawnAt } from '../labels/draw-labels';

export const papers = ['boxes', 'contents', 'list'] as const;
type Paper = (typeof papers)[number];

/** Papers of the boxes of a shipment as pages in millimetres: a label a box, or the packing list. */
export function drawPapers(
  of: Paper,
  boxes: readonly BoxWords[],
  head: { title: string; facts: readonly string[] },
): DrawnPage[] {
  const size = of === 'list' ? listPage : boxLabelSize;
  const marks =
    of === 'list'
      ? drawPackingList(
          {
            ...head,
            rows: boxes.flatMap((box) => box.contents.map((one) => ({ box: String(box.number), ...one }))),
          },
          lineWidth,
        )
      : boxes.map((box) => labelOf(box, of));
  return marks.map((some) => ({ ...size, drawn: drawnAt(some, 0, 0) }));
}

function labelOf(box: BoxWords, of: 'boxes' | 'contents'): Mark[] {
  const marks =
    of === 'boxes'
      ? drawBoxLabel(
          box,
          {
            code: symbolsOf(box.code).linear(),
            tracking: box.tracking ? symbolsOf(box.tracking).linear() : null,
          },
          lineWidth,
        )
      : drawContentsLabel(box, symbolsOf(contentsCode(box)).square(), lineWidth);
  if (!marks)
    throw new NettingError('invalid', `The label of box ${box.number} holds more than can be read from it`, {
      field: 'boxes',
      fix: of === 'boxes' ? 'Give a shorter tracking number' : 'Put fewer different numbers into one box',
    });
  return marks;
}
