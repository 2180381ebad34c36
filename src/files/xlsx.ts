import { once } from 'node:events';
import { PassThrough } from 'node:stream';
import ExcelJS from 'exceljs';
import { SaxesParser } from 'saxes';
import { type Column, isNumeric } from '../core/table';
import { unreadable } from './errors';
import { limits } from './limits';
import { type FileRow, type Format, tableAfter, trimmed } from './table';
import { checkPacked, eachPacked } from './unpack';

/**
 * Signs that a cell cannot hold are written by their number; source: ECMA-376, 22.9.2.19, ST_Xstring. So are those that some
 * readers would decode once more.
 */
const odd =
  /[\u0000-\u0008\u000b-\u001f\ufffe\uffff]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]|_(?=x[0-9A-Fa-f]{4}_)|&(?=(?:amp|lt|gt|quot|apos);)/g;
const byNumber = (sign: string) => `_x${sign.charCodeAt(0).toString(16).toUpperCase().padStart(4, '0')}_`;
const encoded = (text: string): string => text.replace(odd, byNumber);
const decoded = (text: string): string =>
  text.replace(/_x([0-9A-Fa-f]{4})_/g, (_, number: string) => String.fromCharCode(Number.parseInt(number, 16)));

/** Numbers where a spreadsheet may count with them; everything else is text, so that nothing is made of it. */
function cellValue(column: Column, text: string): string | number {
  if (isNumeric(column) && /^-?\d{1,13}(\.\d+)?$/.test(text)) return Number(text);
  return encoded(text);
}

const portion = 200;
const waiting = 4_000_000;

const day = (date: Date): string => {
  const text = date.toISOString();
  return text.endsWith('T00:00:00.000Z') ? text.slice(0, 10) : text;
};

/** What a cell shows, as text. */
function shown(value: unknown): string {
  if (value === null || value === undefined) return '';
  if (typeof value === 'string') return decoded(value);
  if (typeof value === 'number')
    return Number.isInteger(value) && Math.abs(value) < 1e21 ? BigInt(value).toString() : String(value);
  if (typeof value === 'boolean') return value ? 'TRUE' : 'FALSE';
  if (value instanceof Date) return Number.isNaN(value.getTime()) ? '' : day(value);
  // Rich text, a formula, a link or an error, by the library's types.
  const cell = value as Partial<
    Record<'richText' | 'formula' | 'sharedFormula' | 'result' | 'text' | 'error', unknown>
  >;
  if (Array.isArray(cell.richText)) return cell.richText.map((one: { text?: unknown }) => shown(one.text)).join('');
  if (cell.formula !== undefined || cell.sharedFormula !== undefined)
    return cell.result === undefined ? `=${String(cell.formula ?? 'A1')}` : shown(cell.result);
  return shown(cell.text ?? cell.error);
}

async function* sheetRows(path: string, wanted: string | undefined): AsyncGenerator<FileRow> {
  const reader = new ExcelJS.stream.xlsx.WorkbookReader(path, {
    worksheets: 'emit',
    sharedStrings: 'cache',
    styles: 'cache',
    hyperlinks: 'ignore',
    entries: 'ignore',
  });
  let count = 0;
  for await (const sheet of reader) {
    const { name } = sheet as unknown as { name: string }; // the library's types leave it out
    for await (const row of sheet) {
      if (wanted !== undefined && name !== wanted) continue;
      const cells: string[] = [];
      row.eachCell({ includeEmpty: false }, (cell, at) => {
        if (at > 20_000) return;
        while (cells.length < at - 1) cells.push('');
        cells[at - 1] = shown(cell.value);
      });
      const said = trimmed(cells);
      if (said.every((cell) => cell.trim() === '')) continue;
      if (said.length > limits.columns)
        throw unreadable(`Row ${row.number} has ${said.length} columns; at most ${limits.columns} can be read`);
      if (++count > limits.rows + 1)
        throw unreadable(`There are more than ${limits.rows.toLocaleString('en')} rows; read them in parts`);
      yield { line: row.number, cells: said };
    }
    // One sheet is read: the one that was asked for, or the first with something in it.
    if (count > 0) return;
  }
}

/** A workbook's own list of its sheets is short. */
const mostOfBook = 2_000_000;
const mostSheets = 500;

/** The names of a workbook's sheets, in its order; none where it does not tell. */
export async function sheetNames(path: string): Promise<string[]> {
  const names: string[] = [];
  const parser = new SaxesParser();
  parser.on('opentag', ({ name, attributes }) => {
    const title = attributes.name;
    if (/(^|:)sheet$/.test(name) && typeof title === 'string' && names.length < mostSheets) names.push(title);
  });
  parser.on('error', () => undefined);
  await eachPacked(path, async ({ name, bytes, read }) => {
    if (!/^xl\/workbook\.xml$/i.test(name) || bytes > mostOfBook) return;
    for await (const part of await read()) parser.write(String(part));
  });
  return names;
}

export const xlsx: Format = {
  id: 'xlsx',
  label: 'Spreadsheet (XLSX)',
  mime: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  ending: 'xlsx',
  write(columns, rows) {
    const out = new PassThrough();
    const book = new ExcelJS.stream.xlsx.WorkbookWriter({ stream: out, useStyles: true, useSharedStrings: false });
    const sheet = book.addWorksheet('Items', { views: [{ state: 'frozen', ySplit: 1 }] });
    sheet.columns = columns.map((column) => ({
      header: encoded(column.label),
      width: column.id === 'description' ? 60 : Math.max(10, Math.min(40, column.label.length + 4)),
      style: isNumeric(column) ? {} : { numFmt: '@' },
    }));
    const fill = async () => {
      let count = 0;
      for await (const cells of rows) {
        sheet.addRow(columns.map((column, at) => cellValue(column, cells[at] ?? ''))).commit();
        if (++count % portion === 0) {
          await new Promise((resolve) => setImmediate(resolve));
          while (out.readableLength > waiting) await once(out, 'data');
        }
      }
      sheet.commit();
      await book.commit();
    };
    fill().catch((error: unknown) => out.destroy(error instanceof Error ? error : new Error(String(error))));
    return out;
  },
  async read(path, { hasHeader, sheet }) {
    const names = await checkPacked(path);
    if (!names.some((name) => /^xl\/workbook\.xml$/i.test(name))) throw unreadable('This is no workbook');
    const all = sheetRows(path, sheet);
    const first = await all.next().catch((error: unknown) => {
      throw error instanceof Error && error.name === 'NettingError' ? error : unreadable('This workbook is broken');
    });
    if (first.done) throw unreadable('There is nothing in this workbook', 'Choose another file');
    return tableAfter(first.value, all, hasHeader);
  },
};
