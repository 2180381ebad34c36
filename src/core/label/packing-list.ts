import type { Mark, Measure } from './mark';
import { linesOf } from './text';

export type PackingList = {
  title: string;
  /** What stands below the title: where it goes, how, how many. */
  facts: readonly string[];
  rows: readonly { box: string; sku: string; title: string; units: number }[];
};

export const listPage = { widthMm: 210, heightMm: 297 };
const left = 18;
const columns = { box: left, sku: left + 20, title: left + 62, units: 196 };
const first = { title: 24, facts: 33 };
const leading = 6;
const bottom = 280;

const at = (x: number, y: number, size: number, text: string): Mark => ({ is: 'text', x, y, size, text });
const right = (x: number, y: number, size: number, text: string, measure: Measure): Mark =>
  at(x - measure(text) * size, y, size, text);

/** A packing list on pages of A4: what is in which box, a row for each number, the head on every page. */
export function drawPackingList({ title, facts, rows }: PackingList, measure: Measure): Mark[][] {
  const pages: Mark[][] = [];
  let page: Mark[] = [];
  let y = 0;
  const begin = () => {
    page = [at(left, first.title, 7, title)];
    y = first.facts;
    for (const fact of pages.length === 0 ? facts : []) {
      page.push(at(left, y, 3.8, fact));
      y += leading;
    }
    y += 4;
    page.push(
      at(columns.box, y, 3.2, 'Box'),
      at(columns.sku, y, 3.2, 'Stock number'),
      at(columns.title, y, 3.2, 'What it is'),
      right(columns.units, y, 3.2, 'Units', measure),
    );
    page.push({ is: 'bars', bars: [{ x: left, y: y + 1.6, width: columns.units - left, height: 0.25 }] });
    y += leading + 1;
    pages.push(page);
  };
  begin();
  for (const { box, sku, title: what, units } of rows) {
    if (y > bottom) begin();
    const fit = (text: string, wide: number) => linesOf(text, wide, 1, 3.6, measure)[0] ?? '';
    page.push(
      at(columns.box, y, 3.6, fit(box, 18)),
      at(columns.sku, y, 3.6, fit(sku, 40)),
      at(columns.title, y, 3.6, fit(what, columns.units - columns.title - 20)),
      right(columns.units, y, 3.6, String(units), measure),
    );
    y += leading;
  }
  const total = rows.reduce((sum, one) => sum + one.units, 0);
  page.push({ is: 'bars', bars: [{ x: left, y: y - 4.4, width: columns.units - left, height: 0.25 }] });
  page.push(at(columns.box, y + 0.6, 3.8, 'In all'), right(columns.units, y + 0.6, 3.8, String(total), measure));
  return pages;
}
