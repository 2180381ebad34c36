import sharp from 'sharp';
import { codesOn, printed } from '../../../tests/support/printed';
import {
  builtInSizes,
  type LabelKind,
  type LabelSize,
  type LabelWords,
  labelKinds,
  labelPlaces,
  labelSizeSchema,
  labelsOnPage,
  pageOf,
} from '../../core/label';
import { writePdf } from '../../files/pdf';
import { drawLabels } from './draw-labels';

const words = (kind: LabelKind, code: string): LabelWords => ({
  kind,
  code,
  title: kind === 'shelf' ? code : 'Brask K-2 35 mm SLR film camera with 50 mm f/1.8, Łódź Größe',
  facts: ['Very good', 'A-07'],
  price: '€149.00',
});
/** As short and as long as stock numbers are. */
const codes = ['A1', 'GH-0042', 'HC-CLEARANCE.2026/11-000417'];
const sizes = Object.entries(builtInSizes);

/** Pages cut into their labels: what a scanner has before it. */
async function apart(size: LabelSize, pages: Buffer[], count: number): Promise<Buffer[]> {
  const { width = 0 } = await sharp(pages[0]).metadata();
  const dots = width / pageOf(size).widthMm;
  return Promise.all(
    labelPlaces(size, count).map(({ page, xMm, yMm }) =>
      sharp(pages[page])
        .extract({
          left: Math.floor(xMm * dots),
          top: Math.floor(yMm * dots),
          width: Math.floor(size.widthMm * dots),
          height: Math.floor(size.heightMm * dots),
        })
        .png()
        .toBuffer(),
    ),
  );
}

test.each(sizes)('%s is a size that can be', (_, size) => expect(labelSizeSchema.safeParse(size).success).toBe(true));

test.each(sizes)(
  '%s: every label of every kind is read back, also as printed at 203 dpi',
  async (_, size) => {
    for (const [prefers, kinds, dpi] of [
      ['linear', labelKinds, 203],
      ['square', ['item'], 203],
      ['linear', ['item'], 300],
    ] as const) {
      const all = kinds.flatMap((kind) => codes.map((code) => words(kind, code)));
      const pdf = await writePdf(drawLabels({ size, words: all, startAt: 1, prefers }), 'Labels');
      const read = (await Promise.all((await apart(size, printed(pdf, dpi), all.length)).map(codesOn))).flat();
      expect(read.sort()).toEqual(all.map((one) => one.code).sort());
    }
  },
  120_000,
);

test('sheets begin where the last one ended, and go on over the page', () => {
  const size = builtInSizes['sheet-3x8'];
  if (!size) throw new Error('the size is gone');
  const all = Array.from({ length: 24 }, (_, index) => words('item', `GH-${1000 + index}`));
  expect(labelsOnPage(size)).toBe(24);
  const pages = drawLabels({ size, words: all, startAt: 5, prefers: 'linear' });
  expect(pages.map((page) => page.drawn.filter((one) => one.is === 'bars').length)).toEqual([20, 4]);
});

test('nothing stands outside its label', () => {
  for (const [, size] of sizes)
    for (const kind of labelKinds)
      for (const code of codes) {
        const [page] = drawLabels({
          size: { ...size, sheet: null },
          words: [words(kind, code)],
          startAt: 1,
          prefers: 'linear',
        });
        for (const one of page?.drawn ?? []) {
          if (one.is === 'path') {
            expect(one.y).toBeLessThanOrEqual(size.heightMm);
            const across = [...one.path.matchAll(/(-?[\d.]+) -?[\d.]+/g)].map((pair) => Number(pair[1]));
            expect(one.x + Math.max(0, ...across)).toBeLessThanOrEqual(size.widthMm);
          } else
            for (const bar of one.bars) {
              expect(bar.x).toBeGreaterThanOrEqual(0);
              expect(bar.x + bar.width).toBeLessThanOrEqual(size.widthMm + 1e-6);
              expect(bar.y + bar.height).toBeLessThanOrEqual(size.heightMm + 1e-6);
            }
        }
      }
});

test('a sheet whose labels do not fit on its page is refused, with the place', () => {
  const size = builtInSizes['sheet-3x8'];
  const wrong = labelSizeSchema.safeParse({ ...size, sheet: { ...size?.sheet, columns: 4 } });
  expect(wrong.error?.issues[0]).toMatchObject({ path: ['sheet', 'columns'] });
});
