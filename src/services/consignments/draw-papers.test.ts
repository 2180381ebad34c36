import { codesOn, printed } from '../../../tests/support/printed';
import { type BoxWords, contentsCode } from '../../core/label';
import { writePdf } from '../../files/pdf';
import { drawPapers } from './draw-papers';

const head = { title: 'Handbooks · S1', facts: ['Crateway Northwick, Gate 4'] };
const box = (number: number, numbers: number): BoxWords => ({
  code: `S1A0E03ED00${number}`,
  shipment: 'S1A0E03ED',
  number,
  count: 3,
  address: ['Crateway Northwick', 'Gate 4, Ropewalk 12', 'Northwick'],
  carrier: 'Ferrow Parcel',
  tracking: `FR-2026-00417-${number}`,
  measures: '9.4 kg · 40 × 30 × 30 cm',
  contents: Array.from({ length: numbers }, (_, index) => ({
    sku: `GH-${1_000 + index}`,
    units: index + 1,
    title: 'A Field Guide to Harbours, hardback, with a name that goes on and on, Łódź Größe',
  })),
});
const boxes = [box(1, 1), box(2, 8), box(3, 40)];

test.each([203, 300])(
  'box labels and contents labels are read back as printed at %i dpi',
  async (dpi) => {
    const labels = printed(await writePdf(drawPapers('boxes', boxes, head), 'Boxes'), dpi);
    expect(await Promise.all(labels.map(async (page) => (await codesOn(page)).sort()))).toEqual(
      boxes.map((one) => [one.code, one.tracking].sort()),
    );
    const contents = printed(await writePdf(drawPapers('contents', boxes, head), 'Contents'), dpi);
    expect((await Promise.all(contents.map(codesOn))).flat()).toEqual(boxes.map(contentsCode));
  },
  120_000,
);

test('nothing stands outside its paper, and a packing list goes on over the page', () => {
  for (const paper of ['boxes', 'contents', 'list'] as const)
    for (const { widthMm, heightMm, drawn } of drawPapers(paper, boxes, head))
      for (const one of drawn) {
        const corners =
          one.is === 'path' ? [[one.x, one.y]] : one.bars.map((bar) => [bar.x + bar.width, bar.y + bar.height]);
        for (const [x = 0, y = 0] of corners) {
          expect(x).toBeLessThanOrEqual(widthMm);
          expect(y).toBeLessThanOrEqual(heightMm);
        }
      }
  expect(drawPapers('list', boxes, head)).toHaveLength(2);
});

test('a code that is too long for a label is said with its box', () => {
  expect(() => drawPapers('boxes', [{ ...box(2, 1), tracking: 'T'.repeat(60) }], head)).toThrow('box 2');
});
