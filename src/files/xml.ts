import { Readable } from 'node:stream';
import { SaxesParser } from 'saxes';
import type { Column } from '../core/table';
import { textOf } from './decode';
import { unreadable } from './errors';
import { limits } from './limits';
import { type NamedRecord, tableOf } from './records';
import type { Encoding, Format } from './table';

/** Signs that XML 1.0 cannot hold at all; source: its production 2, Char. */
const impossible =
  /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|\r|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

function cell({ id }: Column, text: string): string {
  if (text === '') return '';
  const name = escaped(id);
  return impossible.test(text)
    ? `<cell name="${name}" encoding="base64">${Buffer.from(text, 'utf16le').toString('base64')}</cell>`
    : `<cell name="${name}" xml:space="preserve">${escaped(text)}</cell>`;
}

type Open = { name: string; attributes: Record<string, string>; text: string };

/** What one element of a record says: by the name that it carries, or its own. */
function addTo(record: Map<string, string>, path: readonly Open[], { name, attributes, text }: Open): void {
  const own = attributes.name ?? [...path.map((one) => one.name), name].join('.');
  const said = attributes.encoding === 'base64' ? Buffer.from(text, 'base64').toString('utf16le') : text;
  const before = record.get(own);
  record.set(own, before === undefined ? said : `${before}, ${said}`);
}

/** The elements below the root, one record each. Names of characters that the document makes up are not followed. */
async function* elements(path: string, encoding: Encoding): AsyncGenerator<NamedRecord> {
  const found: NamedRecord[] = [];
  const parser = new SaxesParser({ fragment: false });
  const stack: Open[] = [];
  let record = new Map<string, string>();
  let hasChildren = false;
  let size = 0;
  parser.on('doctype', (text) => {
    if (/<!ENTITY/i.test(text))
      throw unreadable('This XML makes up names of its own (entities); they are not followed');
  });
  parser.on('opentag', ({ name, attributes }) => {
    if (stack.length > 20) throw unreadable('This XML is nested too deeply');
    if (stack.length === 1) {
      record = new Map(Object.entries(attributes as Record<string, string>).map(([key, one]) => [`@${key}`, one]));
      hasChildren = false;
      size = 0;
    } else if (stack.length > 1) hasChildren = true;
    stack.push({ name, attributes: attributes as Record<string, string>, text: '' }); // without namespaces they are texts
  });
  const say = (text: string) => {
    const open = stack.at(-1);
    size += text.length;
    if (size > limits.rowBytes) throw unreadable('One record in it is larger than can be read');
    if (open && stack.length > 1) open.text += text;
  };
  parser.on('text', say);
  parser.on('cdata', say);
  parser.on('closetag', () => {
    const closed = stack.pop();
    if (!closed || stack.length === 0) return;
    if (stack.length === 1) {
      if (!hasChildren && closed.text.trim() !== '') record.set(closed.name, closed.text);
      if (record.size) found.push({ line: parser.line, values: record });
    } else if (closed.text.trim() !== '' || closed.attributes.name !== undefined) addTo(record, stack.slice(2), closed);
  });
  parser.on('error', (error) => {
    throw unreadable(`This XML is broken: ${error.message.slice(0, 120)}`, 'Mend the file, or save it anew');
  });
  let since = 0;
  for await (const text of textOf(path, encoding)) {
    parser.write(text);
    since = found.length ? 0 : since + text.length;
    if (since > limits.rowBytes) throw unreadable('One record in it is larger than can be read');
    yield* found.splice(0);
  }
  parser.close();
  yield* found;
}

export const xml: Format = {
  id: 'xml',
  label: 'XML',
  mime: 'application/xml',
  ending: 'xml',
  write(columns, rows) {
    async function* text() {
      yield '<?xml version="1.0" encoding="UTF-8"?>\n<rows>\n';
      for await (const cells of rows)
        yield `<row>${columns.map((column, at) => cell(column, cells[at] ?? '')).join('')}</row>\n`;
      yield '</rows>\n';
    }
    return Readable.from(text());
  },
  read: (path, { encoding = 'utf-8' }) => tableOf(() => elements(path, encoding)),
};
