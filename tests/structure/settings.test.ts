import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

const root = join(__dirname, '..', '..');
const sources = ['src', 'bin', 'marketplaces', 'demo'].flatMap((folder) =>
  readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.(ts|tsx|mjs)$/.test(name) && !/\.test\.ts$/.test(name))
    .map((name) => readFileSync(join(root, folder, name), 'utf8')),
);
const inCode = new Set(
  sources.flatMap((text) =>
    [...text.matchAll(/\bNETTING_[A-Z0-9_]*[A-Z0-9]\b/g)].map((hit) => hit[0].replace(/_FILE$/, '')),
  ),
);
const page = readFileSync(join(root, 'docs', 'settings.md'), 'utf8');
const onPage = new Set(
  [...page.matchAll(/`(NETTING_[A-Z0-9_]+)`/g)].map((hit) => (hit[1] ?? '').replace(/_FILE$/, '')),
);

test('the page of settings names every variable that is read, and none besides', () => {
  expect(inCode.size).toBeGreaterThan(15);
  expect([...inCode].filter((name) => !onPage.has(name))).toEqual([]);
  expect([...onPage].filter((name) => !inCode.has(name))).toEqual([]);
});

test('what is given to be run elsewhere uses no setting that is not there', () => {
  const given = readdirSync(join(root, 'deploy'), { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.(service|yml|cfg|target)$|Dockerfile$/.test(name))
    .map((name) => readFileSync(join(root, 'deploy', name), 'utf8'))
    .join('\n');
  const names = [...given.matchAll(/\bNETTING_[A-Z0-9_]*[A-Z0-9]\b/g)].map((hit) => hit[0].replace(/_FILE$/, ''));
  expect(names.length).toBeGreaterThan(5);
  expect(names.filter((name) => !onPage.has(name))).toEqual([]);
  // Every program that it starts is there.
  const programs = [...given.matchAll(/src\/[\w/-]+\.ts/g)].map((hit) => hit[0]);
  expect(programs.length).toBeGreaterThan(3);
  for (const one of programs) expect(readFileSync(join(root, one), 'utf8').length).toBeGreaterThan(0);
});
