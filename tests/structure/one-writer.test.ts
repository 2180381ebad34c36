import { readdirSync, readFileSync } from 'node:fs';
import { join, relative, resolve } from 'node:path';

const root = resolve(__dirname, '..', '..');
const files = readdirSync(join(root, 'src'), { recursive: true, encoding: 'utf8' })
  .filter((name) => /\.tsx?$/.test(name) && !/\.(test|test-data)\.tsx?$/.test(name))
  .map((name) => join(root, 'src', name));

/** The ways in which a row of these tables, or what is written for one account alone, can be written. */
const writes: [string, RegExp][] = [
  [
    'an item',
    /\.(update|insert|delete)\(\s*(schema\.)?item(Table)?\s*\)|(update|insert\s+into|delete\s+from)\s+`?item`?\b/i,
  ],
  [
    'a place of a photo',
    /\.(update|insert|delete)\(\s*(schema\.)?itemPhoto\s*\)|(update|into|from)\s+`?item_photo`?\s+(set|where|\()/i,
  ],
  [
    'the stock ledger',
    /\.(update|insert|delete)\(\s*(schema\.)?movement\s*\)|(update|insert\s+into|delete\s+from)\s+`?movement`?\b/i,
  ],
  ['what is written for one account', /\bset\s+l?\.?`?overrides`?\s*=|l\.overrides\s*=|\.set\(\{[^}]*\boverrides\b/i],
];

/** The one writer, its sibling for what is new, and what brings the tables of an older release up to date. */
const allowed = [
  /^src\/services\/changes\//,
  /^src\/services\/items\/create-item\.ts$/,
  /^src\/db\/(fill|schema|migrations)\//,
];

const written = (text: string): string[] => writes.filter(([, how]) => how.test(text)).map(([what]) => what);

test('nothing but the changes, and recording what is new, writes items, the ledger, or what is written for one account', () => {
  const elsewhere = files
    .map((file) => [relative(root, file), written(readFileSync(file, 'utf8'))] as const)
    .filter(([file, found]) => found.length > 0 && !allowed.some((place) => place.test(file)));
  expect(elsewhere).toEqual([]);
});

test('a listing is made with nothing written for it alone', () => {
  for (const file of files) {
    const name = relative(root, file);
    if (allowed.some((place) => place.test(name))) continue;
    for (const [, given] of readFileSync(file, 'utf8').matchAll(
      /\.values\([^;]*?\boverrides(:\s*(?:\{\}|[^,}]+))?[,}\s]/g,
    ))
      expect([name, given]).toEqual([name, ': {}']);
  }
});

test.each([
  'await tx.update(item).set({ price: 1 })',
  'await db.insert(movement).values(rows)',
  'sql`update item i join staged s on s.item_id = i.id`',
  'sql`insert into movement (item_id) values (1)`',
  'await tx.update(listing).set({ overrides: {}, wanted: "live" })',
  'sql`update listing l set l.overrides = v.overrides`',
  'await db.delete(itemPhoto)',
])('it would be found: %s', (text) => expect(written(text)).not.toEqual([]));

test.each(['await tx.update(listing).set({ wanted: "live" })', 'db.select().from(item)', 'await tx.update(itemView)'])(
  'it is no such thing: %s',
  (text) => expect(written(text)).toEqual([]),
);
