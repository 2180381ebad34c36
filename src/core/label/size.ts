import { z } from 'zod';

const mm = z.number().min(0).max(500);

/**
 * A kind of label. Lengths in millimetres. A roll has one label a page; a sheet has columns and rows of them, from its upper
 * left corner, with gaps between them.
 */
export const labelSizeSchema = z
  .object({
    name: z.string().trim().min(1, 'A name, by which it is chosen').max(60),
    widthMm: mm.min(20, 'At least 20 mm wide').max(210),
    heightMm: mm.min(12, 'At least 12 mm high').max(300),
    sheet: z
      .object({
        pageWidthMm: mm.min(50),
        pageHeightMm: mm.min(50),
        columns: z.number().int().min(1).max(20),
        rows: z.number().int().min(1).max(40),
        leftMm: mm,
        topMm: mm,
        gapXMm: mm.max(50),
        gapYMm: mm.max(50),
      })
      .strict()
      .nullable(),
  })
  .strict()
  .superRefine(({ widthMm, heightMm, sheet }, context) => {
    if (!sheet) return;
    const wide = sheet.leftMm + sheet.columns * widthMm + (sheet.columns - 1) * sheet.gapXMm;
    const high = sheet.topMm + sheet.rows * heightMm + (sheet.rows - 1) * sheet.gapYMm;
    const say = (path: string[], message: string) => context.addIssue({ code: 'custom', path, message });
    if (wide > sheet.pageWidthMm + 0.01)
      say(
        ['sheet', 'columns'],
        `${sheet.columns} columns take ${wide.toFixed(1)} mm, the page has ${sheet.pageWidthMm}`,
      );
    if (high > sheet.pageHeightMm + 0.01)
      say(['sheet', 'rows'], `${sheet.rows} rows take ${high.toFixed(1)} mm, the page has ${sheet.pageHeightMm}`);
  });
export type LabelSize = z.infer<typeof labelSizeSchema>;

const a4 = (columns: number, rows: number, leftMm: number, topMm: number, gapXMm = 0): LabelSize['sheet'] => ({
  pageWidthMm: 210,
  pageHeightMm: 297,
  columns,
  rows,
  leftMm,
  topMm,
  gapXMm,
  gapYMm: 0,
});
const roll = (widthMm: number, heightMm: number): LabelSize => ({
  name: `Roll, ${widthMm} × ${heightMm} mm`,
  widthMm,
  heightMm,
  sheet: null,
});

/** Sizes that are there from the beginning, by an id of their own. */
export const builtInSizes: Record<string, LabelSize> = {
  'roll-58x32': roll(58, 32),
  'roll-50x25': roll(50, 25),
  'roll-40x20': roll(40, 20),
  'roll-25x15': roll(25, 15),
  'roll-62x29': roll(62, 29),
  'roll-102x152': { name: 'Roll, 4 × 6 in', widthMm: 101.6, heightMm: 152.4, sheet: null },
  'sheet-3x8': { name: 'Sheet A4, 3 × 8, 70 × 37 mm', widthMm: 70, heightMm: 37, sheet: a4(3, 8, 0, 0.5) },
  'sheet-3x7': {
    name: 'Sheet A4, 3 × 7, 63.5 × 38.1 mm',
    widthMm: 63.5,
    heightMm: 38.1,
    sheet: a4(3, 7, 7.2, 15.1, 2.5),
  },
  'sheet-5x13': {
    name: 'Sheet A4, 5 × 13, 38.1 × 21.2 mm',
    widthMm: 38.1,
    heightMm: 21.2,
    sheet: a4(5, 13, 4.7, 10.7, 2.5),
  },
  'sheet-2x7': {
    name: 'Sheet A4, 2 × 7, 99.1 × 38.1 mm',
    widthMm: 99.1,
    heightMm: 38.1,
    sheet: a4(2, 7, 4.6, 15.1, 2.5),
  },
};

/** Where a label stands: on which page, from 0, and how far from its upper left corner. */
export type LabelPlace = { page: number; xMm: number; yMm: number };

export const labelsOnPage = ({ sheet }: LabelSize): number => (sheet ? sheet.columns * sheet.rows : 1);

/**
 * The places of so many labels, row by row.
 * @param startAt the first free label of the first sheet, from 1; of a roll it says nothing
 */
export function labelPlaces(size: LabelSize, count: number, startAt = 1): LabelPlace[] {
  const { sheet, widthMm, heightMm } = size;
  return Array.from({ length: count }, (_, index): LabelPlace => {
    if (!sheet) return { page: index, xMm: 0, yMm: 0 };
    const at = index + Math.max(0, startAt - 1);
    const here = at % labelsOnPage(size);
    return {
      page: Math.floor(at / labelsOnPage(size)),
      xMm: sheet.leftMm + (here % sheet.columns) * (widthMm + sheet.gapXMm),
      yMm: sheet.topMm + Math.floor(here / sheet.columns) * (heightMm + sheet.gapYMm),
    };
  });
}

/** The page that labels of this size are printed on. */
export const pageOf = ({ widthMm, heightMm, sheet }: LabelSize): { widthMm: number; heightMm: number } =>
  sheet ? { widthMm: sheet.pageWidthMm, heightMm: sheet.pageHeightMm } : { widthMm, heightMm };
