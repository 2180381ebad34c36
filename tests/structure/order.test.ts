import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';

const root = resolve(__dirname, '..', '..');
const cruiser = join(root, 'node_modules', '.bin', 'depcruise');

type Violation = { from: string; rule: { name: string } };

/** What a small house of these files breaks, file by file; the rules are the very ones that the sources are held to. */
function brokenIn(files: Record<string, string>): Map<string, string[]> {
  const house = mkdtempSync(join(tmpdir(), 'order-'));
  try {
    for (const [path, text] of Object.entries({ 'tsconfig.json': '{}', ...files })) {
      mkdirSync(dirname(join(house, path)), { recursive: true });
      writeFileSync(join(house, path), text);
    }
    const done = spawnSync(
      process.execPath,
      [cruiser, '--config', join(root, '.dependency-cruiser.mjs'), '--output-type', 'json', 'src', 'marketplaces'],
      { cwd: house, encoding: 'utf8' },
    );
    const { summary } = JSON.parse(done.stdout) as { summary: { violations: Violation[] } }; // the cruiser's own form
    const byFile = new Map<string, string[]>();
    for (const { from, rule } of summary.violations) byFile.set(from, [...(byFile.get(from) ?? []), rule.name]);
    return byFile;
  } finally {
    rmSync(house, { recursive: true, force: true });
  }
}

const one = 'export const one = 1;\n';
const uses = (path: string) => `import { one } from '${path}';\nexport const two = one;\n`;

const node = "import { readFileSync } from 'node:fs';\nexport const read = readFileSync;\n";
const named = (path: string) => `import type { Two } from '${path}';\nexport const three = (two: Two) => two;\n`;
const house: Record<string, string> = {
  'src/core/fine.ts': one,
  'src/db/fine.ts': uses('../core/fine'),
  'src/services/records/fine.ts': uses('../../core/fine'),
  'src/services/stock/fine.ts': "export type Two = 2;\nexport { two } from '../records/fine';\n",
  'src/ui/fine.ts': uses('../core/fine'),
  'src/app/(shop)/sales/_sales/fine.tsx': named('../../../../services/stock/fine'),
  'marketplaces/fine.ts': one,
  'src/core/reaches-up.ts': uses('../db/fine'),
  'src/core/reads-files.ts': node,
  'src/services/items/draws.ts': uses('../../ui/fine'),
  'src/services/records/moves-stock.ts': uses('../stock/fine'),
  'src/services/sync/sends.ts': uses('../outbox/fine'),
  'src/services/outbox/fine.ts': one,
  'src/core/circle-a.ts': "import type { B } from './circle-b';\nexport type A = { b: B };\n",
  'src/core/circle-b.ts': "import type { A } from './circle-a';\nexport type B = { a: A };\n",
  'src/app/(shop)/sales/_sales/sells.tsx': uses('../../../../services/outbox/fine'),
  'marketplaces/knows.ts': uses('../src/core/fine'),
  'src/markets/peeks.ts': uses('../../marketplaces/fine'),
};
const broken = brokenIn(house);

test('what is in order breaks nothing', () => {
  for (const path of Object.keys(house).filter((name) => name.includes('/fine.')))
    expect(broken.get(path)).toBeUndefined();
});

test.each([
  ['the core reaches for the database', 'src/core/reaches-up.ts', 'core-imports-downwards-only'],
  ['the core reaches for files', 'src/core/reads-files.ts', 'core-is-pure'],
  ['a service reaches for the screens', 'src/services/items/draws.ts', 'services-imports-downwards-only'],
  ['records reach for stock', 'src/services/records/moves-stock.ts', 'services-records-imports-downwards-only'],
  ['the outbox is reached for from below', 'src/services/sync/sends.ts', 'services-sync-imports-downwards-only'],
  ['two files need each other, by types alone', 'src/core/circle-a.ts', 'no-circle'],
  [
    'a screen runs a service in the browser',
    'src/app/(shop)/sales/_sales/sells.tsx',
    'screens-call-services-over-http',
  ],
  ['a marketplace knows Netting', 'marketplaces/knows.ts', 'separate-worlds'],
  ['Netting knows a stand-in', 'src/markets/peeks.ts', 'markets-imports-downwards-only'],
])('%s: found', (_, path, rule) => expect(broken.get(path)).toContain(rule));

test('the rules name every folder of the services, in the order in which the architecture tells it', () => {
  const rules = readFileSync(join(root, '.dependency-cruiser.mjs'), 'utf8');
  const order = [...(/const services = \[([^\]]+)\]/.exec(rules)?.[1] ?? '').matchAll(/'(\w+)'/g)].map((hit) => hit[1]);
  const told = readFileSync(join(root, 'docs', 'architecture.md'), 'utf8');
  const places = order.map((folder) => told.indexOf(`services/${folder}/`));
  expect(places.every((at) => at > 0)).toBe(true);
  expect(places).toEqual([...places].sort((a, b) => a - b));
});
