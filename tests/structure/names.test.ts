import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join, relative, resolve } from 'node:path';

const root = resolve(__dirname, '..', '..');

function* sources(folder: string): Generator<string> {
  for (const name of readdirSync(folder)) {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) yield* sources(path);
    else if (/\.tsx?$/.test(name) && !/\.test(-data)?\.tsx?$/.test(name)) yield path;
  }
}
const text = (path: string) => readFileSync(path, 'utf8');
const markets = readdirSync(join(root, 'src', 'markets'), { withFileTypes: true })
  .filter((entry) => entry.isDirectory())
  .map((entry) => entry.name)
  // How those that speak by listings, pictures and orders over JSON are spoken to.
  .filter((name) => name !== 'rest');

test('there are eleven marketplaces, and each is a folder of the same files', () => {
  expect(markets).toHaveLength(11);
  for (const market of markets)
    expect(
      readdirSync(join(root, 'src', 'markets', market))
        // Some have tests beside them, and those with warehouses a way into them.
        .filter((file) => !file.endsWith('.test.ts') && file !== 'inbound.ts')
        .sort(),
    ).toEqual(['connector.ts', 'rules.ts', 'wire.ts']);
});

test('nothing but its own folder and the one list names a marketplace', () => {
  const list = join('src', 'markets', 'index.ts');
  const wrong = [...sources(join(root, 'src'))].flatMap((path) => {
    const place = relative(root, path);
    if (place === list) return [];
    const words = text(path).toLowerCase();
    return markets
      .filter((market) => !place.startsWith(join('src', 'markets', market)) && words.includes(market))
      .map((market) => `${place} names ${market}`);
  });
  expect(wrong).toEqual([]);
});

test('each marketplace stands in the one list', () => {
  const list = text(join(root, 'src', 'markets', 'index.ts'));
  for (const market of markets) expect(list).toContain(`from './${market}/connector'`);
});

test('the core has no clock and no chance of its own', () => {
  const wrong = [...sources(join(root, 'src', 'core'))].filter((path) =>
    /Date\.now\(|new Date\(\)|Math\.random\(/.test(text(path)),
  );
  expect(wrong).toEqual([]);
});

test('a file of services holds one verb: one function that is meant for others', () => {
  const several = [...sources(join(root, 'src', 'services'))].flatMap((path) => {
    const verbs = [
      ...text(path).matchAll(/^export (?:async )?function\*? (\w+)|^export const (\w+) = (?:async )?\(/gm),
    ];
    return verbs.length > 3 ? [`${relative(root, path)}: ${verbs.map((hit) => hit[1] ?? hit[2]).join(', ')}`] : [];
  });
  expect(several).toEqual([]);
});

test('what is offered for running here names one version of Node.js', () => {
  const engines = (JSON.parse(text(join(root, 'package.json'))) as { engines: { node: string } }).engines.node;
  const version = /(\d+\.\d+)/.exec(engines)?.[1] ?? 'none';
  expect(text(join(root, 'README.md'))).toContain(`Node.js ${version}`);
  expect(text(join(root, 'bin', 'lib', 'install.mjs'))).toContain(`Node.js ${version} or newer`);
});
