import { literal, valuesTable } from './literal';

test.each([
  [null, 'null'],
  [undefined, 'null'],
  [12, '12'],
  [Number.NaN, 'null'],
  [true, '1'],
  ["o'clock \\ \n", "'o\\'clock \\\\ \\n'"],
  [['a', "b'"], '\'[\\"a\\",\\"b\\\'\\"]\''],
  [new Date('2026-11-26T01:02:03.456Z'), "'2026-11-26 01:02:03.456'"],
])('%j is written as %s', (value, text) => expect(literal(value)).toBe(text));

test('a table of values names its columns once', () => {
  const { queryChunks } = valuesTable(
    ['id', 'title'],
    [
      [1, 'x'],
      [2, "it's"],
    ],
  );
  expect(JSON.stringify(queryChunks)).toContain("select 1 as `id`, 'x' as `title` union all select 2, 'it\\\\'s'");
});
