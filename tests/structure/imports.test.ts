import { readdirSync, readFileSync, statSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';

const root = resolve(__dirname, '..', '..');

/** From each part of the sources, what it may import besides itself. Downwards only. */
const allowed: Record<string, string[]> = {
  core: [],
  config: [],
  db: ['core', 'config'],
  photos: ['core', 'config'],
  markets: ['core', 'config'],
  services: ['core', 'config', 'db', 'photos', 'markets'],
  worker: ['core', 'config', 'db', 'photos', 'markets', 'services'],
  http: ['core', 'config', 'photos', 'services'],
  ui: ['core', 'services'],
  app: ['core', 'config', 'db', 'photos', 'services', 'http', 'ui'],
};
const purePackages = ['zod', 'liquidjs'];

function* sources(folder: string): Generator<string> {
  for (const name of readdirSync(folder)) {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) yield* sources(path);
    else if (/\.tsx?$/.test(name) && !/\.test(-data)?\.tsx?$/.test(name)) yield path;
  }
}

type Import = { file: string; from: string; target: string; isType: boolean };

function importsOf(file: string): Import[] {
  const text = readFileSync(file, 'utf8');
  const found = [
    ...text.matchAll(
      /(import|export)\s+(type\s+)?(?:[^'"();]*?\s+from\s+)?['"]([^'"]+)['"]|import\(\s*['"]([^'"]+)['"]\s*\)/g,
    ),
  ];
  return found.map((hit) => {
    const target = hit[3] ?? hit[4] ?? '';
    const path = target.startsWith('@/')
      ? join(root, 'src', target.slice(2))
      : target.startsWith('.')
        ? resolve(dirname(file), target)
        : target;
    return {
      file: relative(root, file),
      from: relative(root, file),
      target: path.startsWith(root) ? relative(root, path) : path,
      isType: Boolean(hit[2]),
    };
  });
}

const partOf = (path: string) => /^src\/([^/.]+)/.exec(path)?.[1] ?? '';
const all = [...sources(join(root, 'src')), ...sources(join(root, 'marketplaces'))].flatMap(importsOf);

test('there is something to check', () => expect(all.length).toBeGreaterThan(300));

test('imports run downwards only', () => {
  const wrong = all.filter(({ file, target, isType }) => {
    const [from, to] = [partOf(file), partOf(target)];
    if (!from || !to || from === to) return false;
    // Screens name the shapes that services return; such imports leave nothing in the page.
    if (from === 'ui' && to === 'services') return !isType;
    return !allowed[from]?.includes(to);
  });
  expect(wrong).toEqual([]);
});

test('the core imports nothing but itself and small pure packages', () => {
  const wrong = all.filter(
    ({ file, target }) =>
      file.startsWith('src/core/') && !target.startsWith('src/core') && !purePackages.includes(target),
  );
  expect(wrong).toEqual([]);
});

test('the core has no clock and no chance of its own', () => {
  const wrong = [...sources(join(root, 'src/core'))].filter((file) =>
    /Date\.now\(|new Date\(\)|Math\.random\(/.test(readFileSync(file, 'utf8')),
  );
  expect(wrong).toEqual([]);
});

test('Netting and the marketplaces never import each other', () => {
  const wrong = all.filter(
    ({ file, target }) =>
      file.startsWith('marketplaces/') !== target.startsWith('marketplaces/') &&
      (target.startsWith('marketplaces/') || target.startsWith('src/')),
  );
  expect(wrong).toEqual([]);
});

test('client components import services as types only', () => {
  const wrong = all.filter(
    ({ file, target, isType }) =>
      target.startsWith('src/services') &&
      !isType &&
      file.startsWith('src/app/(shop)') &&
      readFileSync(join(root, file), 'utf8').startsWith("'use client'"),
  );
  expect(wrong).toEqual([]);
});
