import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

const root = join(__dirname, '..', '..');
const text = readFileSync(join(root, 'docs', 'coverage.md'), 'utf8');
const named = [...text.matchAll(/`([^`\n]+)`/g)].map((hit) => hit[1] ?? '');

/** Every file below, by its bare name. */
function* namesIn(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (entry.isDirectory() && entry.name !== 'node_modules') yield* namesIn(join(folder, entry.name));
    else yield entry.name;
  }
}
const files = new Set(['src', 'tests', 'marketplaces'].flatMap((folder) => [...namesIn(join(root, folder))]));

test('every test that the table of clauses names is there', () => {
  const tests = named.filter((one) => /\.(test|spec)$/.test(one));
  expect(tests.length).toBeGreaterThan(150);
  expect([...new Set(tests)].filter((one) => !files.has(`${one}.ts`))).toEqual([]);
});

test('every module of the core that it names is there', () => {
  const modules = named.filter((one) => /^[a-z]+(\/[a-z-]+)+$/.test(one) && !one.startsWith('tests/'));
  expect(modules.length).toBeGreaterThan(60);
  const isThere = (one: string) =>
    existsSync(join(root, 'src', 'core', `${one}.ts`)) || existsSync(join(root, 'src', 'core', one));
  expect([...new Set(modules)].filter((one) => !isThere(one))).toEqual([]);
});
