import { Readable } from 'node:stream';
import { parse } from 'csv-parse';
import { parse as parseAtOnce } from 'csv-parse/sync';
import { unguarded } from '../core/table';
import { csvLines } from './csv-line';
import { startOf, textOf } from './decode';
import { unreadable } from './errors';
import { limits } from './limits';
import { portions } from './portions';
import { type Encoding, type FileRow, type Format, type Separator, tableAfter, trimmed } from './table';

const separators: Separator[] = [',', ';', '\t', '|'];

const how = (delimiter: Separator) => ({
  delimiter,
  bom: true,
  relax_column_count: true,
  relax_quotes: true,
  skip_empty_lines: true,
  max_record_size: limits.rowBytes,
});

/** How well a text falls into columns at this sign: how many columns there are, if most rows have the same number. */
function fitOf(sample: string, separator: Separator): number {
  try {
    const rows = parseAtOnce(sample, { ...how(separator), to: 30 }) as string[][]; // without columns rows are lists
    const counts = rows.map((row) => row.length);
    const usual = counts.sort((a, b) => a - b)[Math.floor(counts.length / 2)] ?? 0;
    const share = counts.filter((count) => count === usual).length / Math.max(1, counts.length);
    return usual > 1 ? usual * share : 0;
  } catch {
    return 0;
  }
}

/** The sign between the columns: the one at which the first rows fall into the most columns of the same number. */
export async function separatorOf(path: string, encoding: Encoding): Promise<Separator> {
  const whole = new TextDecoder(encoding).decode(await startOf(path));
  // Not to the end, which may be in the middle of a row.
  const sample = whole.length > 60_000 ? whole.slice(0, whole.lastIndexOf('\n')) : whole;
  const fits = separators.map((separator) => ({ separator, fit: fitOf(sample, separator) }));
  fits.sort((a, b) => b.fit - a.fit);
  return fits[0] && fits[0].fit > 0 ? fits[0].separator : ',';
}

const faults: Record<string, string> = {
  CSV_QUOTE_NOT_CLOSED: 'A quotation mark is opened and never closed',
  CSV_MAX_RECORD_SIZE: 'A row is longer than can be read; a quotation mark may be missing',
};

/** What a parser says of a file, as one of our errors. */
function asFault(error: unknown): unknown {
  const code = (error as { code?: string }).code ?? '';
  const { lines } = error as { lines?: number };
  if (!code.startsWith('CSV_')) return error;
  return unreadable(`${faults[code] ?? 'This CSV cannot be read'}${lines ? ` (line ${lines})` : ''}`);
}

type Parsed = { record: string[]; info: { lines: number } };

async function* records(path: string, encoding: Encoding, separator: Separator): AsyncGenerator<FileRow> {
  const parser = Readable.from(textOf(path, encoding)).pipe(parse({ ...how(separator), info: true }));
  let count = 0;
  try {
    for await (const one of parser) {
      const { record, info } = one as Parsed; // asked for by `info`
      const cells = trimmed(record);
      if (cells.every((cell) => cell.trim() === '')) continue;
      if (cells.length > limits.columns)
        throw unreadable(`Line ${info.lines} has ${cells.length} columns; at most ${limits.columns} can be read`);
      if (++count > limits.rows + 1)
        throw unreadable(`There are more than ${limits.rows.toLocaleString('en')} rows; read them in parts`);
      yield { line: info.lines, cells: cells.map(unguarded) };
    }
  } catch (error) {
    throw asFault(error);
  }
}

export const csv: Format = {
  id: 'csv',
  label: 'CSV',
  mime: 'text/csv',
  ending: 'csv',
  write(columns, rows, { separator = ',', mark = false }) {
    async function* text() {
      yield `${mark ? '\ufeff' : ''}${csvLines([columns.map((one) => one.label)], separator)}`;
      for await (const some of portions(rows, 500)) yield csvLines(some, separator);
    }
    return Readable.from(text());
  },
  async read(path, { encoding = 'utf-8', separator = ',', hasHeader }) {
    const all = records(path, encoding, separator);
    const first = await all.next();
    if (first.done) throw unreadable('There is nothing in this file', 'Choose another file');
    return tableAfter(first.value, all, hasHeader);
  },
};
