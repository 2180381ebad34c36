import { Readable } from 'node:stream';
import { textOf } from './decode';
import { unreadable } from './errors';
import { objectOf } from './json';
import { limits } from './limits';
import { flattened, type NamedRecord, tableOf } from './records';
import type { Encoding, Format } from './table';

/** Lines of a text, none of which is held when it is longer than can be read. */
async function* linesOf(parts: AsyncIterable<string>): AsyncGenerator<string> {
  let rest = '';
  let count = 0;
  for await (const part of parts) {
    const lines = `${rest}${part}`.split('\n');
    rest = lines.pop() ?? '';
    count += lines.length;
    if (rest.length > limits.rowBytes) throw unreadable(`Line ${count + 1} is longer than can be read`);
    yield* lines;
  }
  if (rest) yield rest;
}

async function* objects(path: string, encoding: Encoding): AsyncGenerator<NamedRecord> {
  let line = 0;
  for await (const text of linesOf(textOf(path, encoding))) {
    line++;
    if (text.trim() === '') continue;
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
