import { unreadable } from './errors';
import { limits } from './limits';
import type { FileRow, FileTable } from './table';

/** A record of JSON or XML: its values by their names, in the order in which they stand there. */
export type NamedRecord = { line: number; values: Map<string, string> };

const asText = (value: unknown): string =>
  value === null || value === undefined
    ? ''
    : Array.isArray(value)
      ? value.map(asText).join(', ')
      : typeof value === 'object'
        ? JSON.stringify(value)
        : String(value);

/** An object as names and texts: what is nested has names joined by dots. */
export function flattened(value: object, prefix = '', into = new Map<string, string>()): Map<string, string> {
  for (const [key, one] of Object.entries(value)) {
    const name = `${prefix}${key}`;
    const isNested = typeof one === 'object' && one !== null && !Array.isArray(one);
    if (isNested && prefix.split('.').length < 6) flattened(one as object, `${name}.`, into);
    else into.set(name, asText(one));
  }
  return into;
}

/** A table of records that name their values: its columns are all the names that come up. */
export async function tableOf(records: () => AsyncIterable<NamedRecord>): Promise<FileTable> {
  const names = new Set<string>();
  let count = 0;
  for await (const { values } of records()) {
    for (const name of values.keys()) names.add(name);
    if (names.size > limits.columns) throw unreadable(`There are more than ${limits.columns} different names in it`);
    if (++count > limits.rows)
      throw unreadable(`There are more than ${limits.rows.toLocaleString('en')} records; read them in parts`);
  }
  if (count === 0) throw unreadable('There are no records in this file', 'Choose another file');
  const headers = [...names];
  async function* rows(): AsyncGenerator<FileRow> {
    for await (const { line, values } of records())
      yield { line, cells: headers.map((name) => values.get(name) ?? '') };
  }
  return { headers, rows: rows() };
}
