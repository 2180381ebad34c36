import { createInterface } from 'node:readline';
import { Readable } from 'node:stream';
import { textOf } from './decode';
import { unreadable } from './errors';
import { objectOf } from './json';
import { limits } from './limits';
import { flattened, type NamedRecord, tableOf } from './records';
import type { Encoding, Format } from './table';

async function* objects(path: string, encoding: Encoding): AsyncGenerator<NamedRecord> {
  let line = 0;
  for await (const text of createInterface({ input: Readable.from(textOf(path, encoding)), crlfDelay: 1_000 })) {
    line++;
    if (text.trim() === '') continue;
    if (text.length > limits.rowBytes) throw unreadable(`Line ${line} is longer than can be read`);
    let value: unknown;
    try {
      value = JSON.parse(text);
    } catch {
      throw unreadable(`Line ${line} is no JSON`, 'Mend this line, or save the file anew');
    }
    if (typeof value !== 'object' || value === null || Array.isArray(value))
      throw unreadable(`Line ${line} is no record with names`);
    yield { line, values: flattened(value) };
  }
}

export const ndjson: Format = {
  id: 'ndjson',
  label: 'NDJSON, one record a line',
  mime: 'application/x-ndjson',
  ending: 'ndjson',
  write(columns, rows) {
    async function* text() {
      for await (const cells of rows) yield `${objectOf(columns, cells)}\n`;
    }
    return Readable.from(text());
  },
  read: (path, { encoding = 'utf-8' }) => tableOf(() => objects(path, encoding)),
};
