import { createWriteStream, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import fc from 'fast-check';
import { sayingSizes, zipOf } from '../../tests/support/zip';
import { fieldsFor } from '../core/field';
import { type Column, columnOf } from '../core/table';
import {
  archiveKind,
  csvLines,
  eachPhoto,
  type FormatId,
  formats,
  type Layout,
  layoutOf,
  packedKind,
  type Separator,
  takeTable,
} from '.';

let folder = '';
let made = 0;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'netting-files-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const catalogue = fieldsFor();
const columns = ['row.item', 'sku', 'title', 'price', 'quantity', 'description', 'keywords'].map((id): Column => {
  const found = columnOf(id, catalogue, []);
  if (!found) throw new Error(id);
  return found;
});
const path = () => join(folder, `file-${++made}`);
const file = (contents: string | Buffer) => {
  const at = path();
  writeFileSync(at, contents);
  return at;
};
async function* each<T>(some: readonly T[]) {
  yield* some;
}
async function written(format: FormatId, rows: string[][], options = {}) {
  const at = path();
  await pipeline(formats[format].write(columns, each(rows), options), createWriteStream(at));
  return at;
}
async function readBack(at: string, part: Partial<Layout> = {}) {
  const layout = {
    ...(part.format === 'xlsx' ? { format: 'xlsx' as const, hasHeader: true } : await layoutOf(at)),
    ...part,
  };
  const table = await formats[layout.format].read(at, layout);
  const rows: string[][] = [];
  for await (const row of table.rows) rows.push(table.headers.map((_, index) => row.cells[index] ?? ''));
  return { layout, headers: table.headers, rows };
}

const unit = fc.oneof(
  fc.constantFrom(...'=+-@\'",;|<>&\t\r\n _x0041_{}[]:.0123456789eE'.split(''), '\u0001', '\u001f', '\u2028'),
  fc.constantFrom('א', 'ع', '👩‍🚀', 'é', 'ß', '漢', 'a', '&amp;', ']]>', '_x000D_'),
);
const anyText = fc.string({ unit, maxLength: 30 });
const anyRow = fc.record({
  id: fc.integer({ min: 1, max: 1_000_000 }),
  sku: anyText,
  title: anyText,
  price: fc.integer({ min: 0, max: 10_000_000 }).map((minor) => (minor / 100).toFixed(2)),
  quantity: fc.integer({ min: 0, max: 9_999 }).map(String),
  description: anyText,
  keywords: anyText,
});
const rowOf = ({ id, ...one }: { id: number } & Record<string, string | number>) => [
  String(id),
  ...Object.values(one).map(String),
];

const same = (format: FormatId, column: number, text: string) =>
  // Numbers are numbers in some of them: 12.50 and 12.5 are the same amount.
  (format === 'xlsx' || format === 'json' || format === 'ndjson') && (column === 3 || column === 4)
    ? String(Number(text))
    : text;

describe.each(['csv', 'json', 'ndjson', 'xml', 'xlsx'] as FormatId[])('%s', (format) => {
  test('what is written reads back equal, whatever stands in it', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(anyRow, { minLength: 1, maxLength: 6 }), async (some) => {
        const rows = some.map(rowOf);
        const back = await readBack(await written(format, rows), { format });
        const names = back.headers;
        for (const [at, row] of rows.entries())
          for (const [index, column] of columns.entries()) {
            const there = names.findIndex((name) => name === column.label || name === column.id);
            const text = there < 0 ? '' : (back.rows[at]?.[there] ?? '');
            expect([column.id, same(format, index, text)]).toEqual([column.id, same(format, index, row[index] ?? '')]);
          }
      }),
      { numRuns: format === 'xlsx' ? 40 : 100 },
    );
  });

  test('ten thousand rows pass without being held', async () => {
    const rows = Array.from({ length: 10_000 }, (_, at) => [
      String(at + 1),
      `S-${at}`,
      `Title ${at}`,
      '1.50',
      '3',
      '',
      'a, b',
    ]);
    const back = await readBack(await written(format, rows), { format });
    expect(back.rows).toHaveLength(10_000);
    expect(back.rows[9_999]?.slice(0, 3)).toEqual(['10000', 'S-9999', 'Title 9999']);
  });
});

test('lines within a cell of a CSV stand in quotes, so that every spreadsheet keeps them', () => {
  const cells = ['a', 'one\ntwo', 'b\r', 'c, d', 'say "e"'];
  expect(csvLines([cells], ',')).toBe('a,"one\ntwo","b\r","c, d","say ""e"""\r\n');
});

describe('how a file is written is recognised', () => {
  test.each([[','], [';'], ['\t'], ['|']] as [Separator][])('columns apart by %j', async (separator) => {
    const at = await written('csv', [['1', 'A', 'One, two; three', '2.00', '1', '', '']], {
      separator,
      mark: separator === ';',
    });
    expect(await readBack(at)).toMatchObject({
      layout: { format: 'csv', encoding: 'utf-8', separator },
      rows: [['1', 'A', 'One, two; three', '2.00', '1', '', '']],
    });
  });

  test.each([
    ['utf-8', Buffer.from('Name;Preis\nKöder;1,50\n')],
    ['windows-1252', Buffer.from('Name;Preis\nK\xf6der;1,50\n', 'latin1')],
    ['utf-16le', Buffer.from('\ufeffName;Preis\nKöder;1,50\n', 'utf16le')],
    ['utf-16le', Buffer.from('Name;Preis\nKöder;1,50\n', 'utf16le')],
    ['utf-16be', Buffer.from('\ufeffName;Preis\nKöder;1,50\n', 'utf16le').swap16()],
  ])('%s', async (encoding, bytes) => {
    expect(await readBack(file(bytes))).toMatchObject({
      layout: { encoding, separator: ';' },
      headers: ['Name', 'Preis'],
      rows: [['Köder', '1,50']],
    });
  });

  test('empty columns at the end, lines with nothing, headers that come twice', async () => {
    const { headers, rows } = await readBack(file('a,a,,,\n1,2,,,\n,,,,\n\n3,4\n'));
    expect(headers).toEqual(['a', 'a (2)']);
    expect(rows).toEqual([
      ['1', '2'],
      ['3', '4'],
    ]);
  });

  test('a first row that names no columns is a row as any other', async () => {
    expect(await readBack(file('a,1\nb,2\n'), { hasHeader: false })).toMatchObject({
      headers: ['Column 1', 'Column 2'],
      rows: [
        ['a', '1'],
        ['b', '2'],
      ],
    });
  });

  test('records of others: nested names, lists, elements with names of their own', async () => {
    expect(
      await readBack(file('{"shop":1,"items":[{"sku":"a","size":{"l":1},"tags":["x","y"]},{"sku":"b","new":true}]}')),
    ).toMatchObject({
      headers: ['sku', 'size.l', 'tags', 'new'],
      rows: [
        ['a', '1', 'x, y', ''],
        ['b', '', '', 'true'],
      ],
    });
    const { headers, rows } = await readBack(
      file(
        '<shop><thing id="7"><name>One &amp; two</name><size><l>3</l></size><tag>x</tag><tag>y</tag></thing></shop>',
      ),
    );
    expect(Object.fromEntries(headers.map((name, at) => [name, rows[0]?.[at]]))).toEqual({
      '@id': '7',
      name: 'One & two',
      'size.l': '3',
      tag: 'x, y',
    });
  });
});

describe('what is no table', () => {
  const why = async (contents: string | Buffer, part: Partial<Layout> = {}) => {
    try {
      const at = file(contents);
      await packedKind(at);
      await readBack(at, part);
      return 'read';
    } catch (error) {
      return (error as Error).message;
    }
  };
  test.each([
    ['%PDF-1.7 …', 'This is a PDF, not a table'],
    ['', 'This file is empty'],
    ['\n \n', 'This file is empty'],
    ['<!doctype html><p>x', 'This is a page of the web, not a table'],
    ['a,b\n"open,1\n', 'A quotation mark is opened and never closed'],
    ['[{"a":1},{"a"', 'After record'],
    ['{"a":1}\n{"a":\n', 'Line 2 is no JSON'],
    ['<a><b><c>1</b></a>', 'This XML is broken'],
    [`<a><b x="${'y'.repeat(5_000_000)}"/></a>`, 'larger than can be read'],
    [`{"a":1}\n{"a":"${'y'.repeat(5_000_000)}`, 'Line 2 is longer than can be read'],
    [`[{"a":"${'y'.repeat(5_000_000)}"}]`, 'larger than can be read'],
    ['<!DOCTYPE a [<!ENTITY x "y">]><a><b>&x;</b></a>', 'entities'],
    [Array.from({ length: 16_384 }, (_, at) => `c${at}`).join(','), 'at most 1000 can be read'],
  ])('%#: %s', async (contents, sentence) => {
    expect(await why(contents)).toContain(sentence);
  });

  test('a workbook that is none, of the older kind, or a ZIP that unpacks to other than it says', async () => {
    expect(await why('PK\u0003\u0004 nothing', { format: 'xlsx' })).toContain('broken');
    expect(await why(Buffer.from([0xd0, 0xcf, 0x11, 0xe0, 1, 2, 3]))).toContain('older kind');
    const book = await zipOf({ 'xl/workbook.xml': '<x/>', 'xl/worksheets/sheet1.xml': 'x'.repeat(10_000) });
    expect(await why(sayingSizes(book, 900_000_000), { format: 'xlsx' })).toContain('unpacks to more than 800 MB');
    expect(await why(sayingSizes(book, 4), { format: 'xlsx' })).toContain('broken');
    expect(await why(await zipOf({ 'a.txt': 'x' }), { format: 'xlsx' })).toContain('no workbook');
  });
});

describe('a table that comes with its photos', () => {
  const opened = async (files: Record<string, string>) => {
    const at = file(await zipOf(files));
    expect(await archiveKind(at)).toBe('archive');
    return takeTable(at, path());
  };
  test('is found among them, whatever folder it lies in; hidden files are none', async () => {
    const files = { 'shop/table.csv': 'a,b\n1,2\n', 'shop/p/one.JPG': 'x', '__MACOSX/._table.csv': 'x' };
    expect(await opened(files)).toEqual({ table: 'table.csv', photos: 1 });
    const taken: string[] = [];
    await eachPhoto(file(await zipOf(files)), new Set(['one.jpg']), async (name, bytes) => {
      taken.push(`${name} ${bytes.toString()}`);
    });
    expect(taken).toEqual(['one.jpg x']);
  });

  test('none, and several, are said', async () => {
    await expect(opened({ 'a.jpg': 'x' })).rejects.toThrow('no table in this ZIP');
    await expect(opened({ 'a.csv': 'x', 'b.csv': 'y' })).rejects.toThrow('several tables');
  });
});
