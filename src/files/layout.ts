import { separatorOf } from './csv';
import { encodingOf, startOf } from './decode';
import { unreadable } from './errors';
import type { Layout } from './table';

const magic: [RegExp, string][] = [
  [/^%PDF/, 'This is a PDF, not a table'],
  [/^\xff\xd8\xff/, 'This is a picture, not a table'],
  [/^\x89PNG/, 'This is a picture, not a table'],
  [/^GIF8/, 'This is a picture, not a table'],
  [/^\xd0\xcf\x11\xe0/, 'This is a workbook of the older kind'],
  [/^\x1f\x8b/, 'This is packed in a way that is not read'],
  [/^Rar!|^7z/, 'This is packed in a way that is not read'],
];

/** What a file is by its first bytes; a name says nothing. */
export async function packedKind(path: string): Promise<'zip' | 'plain'> {
  const start = await startOf(path, 4_096);
  if (start.length === 0) throw unreadable('This file is empty', 'Choose another file');
  const text = start.toString('latin1');
  for (const [pattern, why] of magic) if (pattern.test(text)) throw unreadable(why);
  return text.startsWith('PK') ? 'zip' : 'plain';
}

/** A share of signs that no text holds. */
function looksBinary(text: string): boolean {
  const odd = [...text.slice(0, 4_000)].filter((sign) => sign < ' ' && !'\t\r\n\0'.includes(sign)).length;
  return odd > text.slice(0, 4_000).length / 20;
}

/** How a file that is not packed is written: format, encoding, separator. */
export async function layoutOf(path: string): Promise<Layout> {
  const encoding = await encodingOf(path);
  const text = new TextDecoder(encoding).decode(await startOf(path)).trimStart();
  if (text === '') throw unreadable('This file is empty', 'Choose another file');
  if (looksBinary(text)) throw unreadable('This is no table that can be read');
  if (/^<[?!a-z]/i.test(text)) {
    if (/^<!doctype html|^<html/i.test(text)) throw unreadable('This is a page of the web, not a table');
    return { format: 'xml', encoding, hasHeader: true };
  }
  if (text.startsWith('[')) return { format: 'json', encoding, hasHeader: true };
  if (text.startsWith('{')) {
    const [first = ''] = text.split('\n');
    const isLine = first.trim().endsWith('}') && isJson(first);
    return { format: isLine && text.includes('\n') ? 'ndjson' : 'json', encoding, hasHeader: true };
  }
  return { format: 'csv', encoding, separator: await separatorOf(path, encoding), hasHeader: true };
}

function isJson(text: string): boolean {
  try {
    JSON.parse(text);
    return true;
  } catch {
    return false;
  }
}
