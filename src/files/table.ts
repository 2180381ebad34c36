import type { Readable } from 'node:stream';
import type { Column } from '../core/table';

/** One row of a file; `line` is where a person finds it there. */
export type FileRow = { line: number; cells: string[] };

export type FileTable = {
  headers: string[];
  rows: AsyncIterable<FileRow>;
};

export type Separator = ',' | ';' | '\t' | '|';
export type Encoding = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252';

/** How a file was found to be written; each can be said otherwise by hand. */
export type Layout = {
  format: FormatId;
  encoding?: Encoding;
  separator?: Separator;
  hasHeader: boolean;
  /** Of a workbook with several: the one that is read, and all there are. */
  sheet?: string;
  sheets?: string[];
};

export type WriteOptions = {
  separator?: Separator;
  /** Begin with the mark by which some spreadsheets know UTF-8. */
  mark?: boolean;
};

export type FormatId = 'csv' | 'xlsx' | 'json' | 'ndjson' | 'xml';

/** A format of files: how rows are written in it, and how they are read from it, a stream each way. */
export type Format = {
  id: FormatId;
  label: string;
  mime: string;
  ending: string;
  write(columns: readonly Column[], rows: AsyncIterable<readonly string[]>, options: WriteOptions): Readable;
  read(path: string, layout: Layout): Promise<FileTable>;
};

/** Names for columns that have none. */
const columnName = (at: number): string => `Column ${at + 1}`;

/** Rows without the empty columns that spreadsheets leave at the end of them. */
export function trimmed(cells: readonly string[]): string[] {
  let end = cells.length;
  while (end > 0 && (cells[end - 1] ?? '') === '') end--;
  return cells.slice(0, end);
}

/** Headers of their own, so that no two columns are called the same. */
function distinct(headers: readonly string[]): string[] {
  const seen = new Map<string, number>();
  return headers.map((header, at) => {
    const name = header.trim() || columnName(at);
    const times = (seen.get(name) ?? 0) + 1;
    seen.set(name, times);
    return times === 1 ? name : `${name} (${times})`;
  });
}

/** A table of rows whose first one names the columns, or is a row as any other. */
export function tableAfter(first: FileRow, others: AsyncIterable<FileRow>, hasHeader: boolean): FileTable {
  async function* rows() {
    if (!hasHeader) yield first;
    yield* others;
  }
  const headers = hasHeader ? distinct(first.cells) : first.cells.map((_, at) => columnName(at));
  return { headers, rows: rows() };
}
