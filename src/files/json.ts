import { Readable } from 'node:stream';
import { JSONParser } from '@streamparser/json';
import { type Column, isNumeric } from '../core/table';
import { textOf } from './decode';
import { unreadable } from './errors';
import { limits } from './limits';
import { flattened, type NamedRecord, tableOf } from './records';
import type { Encoding, Format } from './table';

/** A row as an object: numbers are numbers where they can be, everything else is text. */
export function objectOf(columns: readonly Column[], cells: readonly string[]): string {
  const pairs = columns.map((column, at): [string, string | number] => {
    const cell = cells[at] ?? '';
    const isNumber = isNumeric(column) && /^-?\d{1,13}(\.\d{1,6})?$/.test(cell);
    return [column.id, isNumber ? Number(cell) : cell];
  });
  return JSON.stringify(Object.fromEntries(pairs));
}

const isObject = (value: unknown): value is object =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** The objects of the list at the top; of an object at the top, those of the first list in it. */
async function* objects(path: string, encoding: Encoding, at: string): AsyncGenerator<NamedRecord> {
  const found: object[] = [];
  const parser = new JSONParser({ paths: [at], keepStack: false });
  parser.onValue = ({ value }) => {
    if (isObject(value)) found.push(value);
  };
  let line = 0;
  let since = 0;
  try {
    for await (const text of textOf(path, encoding)) {
      parser.write(text);
      since = found.length ? 0 : since + text.length;
      if (since > limits.rowBytes) throw unreadable('One record in it is larger than can be read');
      for (const one of found.splice(0)) yield { line: ++line, values: flattened(one) };
    }
    if (!parser.isEnded) throw new Error('it ends too early');
  } catch (error) {
    if (error instanceof Error && error.name === 'NettingError') throw error;
    throw unreadable(`After record ${line} this is no JSON any more`, 'Mend the file, or save it anew');
  }
}

/** Where the records stand: in the list at the top, or in the first list of the object at the top. */
async function placeOf(path: string, encoding: Encoding): Promise<string> {
  for await (const text of textOf(path, encoding)) {
    const start = text.trimStart();
    if (start.startsWith('[')) return '$.*';
    if (start.startsWith('{')) return '$.*.*';
    if (start !== '') break;
  }
  throw unreadable('This is no JSON that holds a list of records');
}

export const json: Format = {
  id: 'json',
  label: 'JSON',
  mime: 'application/json',
  ending: 'json',
  write(columns, rows) {
    async function* text() {
      let before = '[\n';
      for await (const cells of rows) {
        yield `${before}${objectOf(columns, cells)}`;
        before = ',\n';
      }
      yield before === '[\n' ? '[]\n' : '\n]\n';
    }
    return Readable.from(text());
  },
  async read(path, { encoding = 'utf-8' }) {
    const at = await placeOf(path, encoding);
    return tableOf(() => objects(path, encoding, at));
  },
};
