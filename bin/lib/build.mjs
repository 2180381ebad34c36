import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { memoryHere } from './memory.mjs';
import { runToEnd } from './run.mjs';
import { say } from './say.mjs';
import { root } from './settings.mjs';

function* filesIn(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* filesIn(path);
    else if (!entry.name.endsWith('.test.ts')) yield path;
  }
}

/** Building takes so much memory, besides what runs beside it (docs/measurements.md). */
const neededBytes = 3 * 2 ** 30;
const gigabytes = (bytes) => `${(bytes / 2 ** 30).toFixed(1)} GB`;
const whyNot = () =>
  memoryHere() < neededBytes
    ? `. It takes some ${gigabytes(neededBytes)} of memory, and there are ${gigabytes(memoryHere())}: add swap, or build the same version on a larger machine and copy its folder .next here. What it said`
    : '';

/** Builds the application when its sources have changed since the last build. */
export async function buildApplication(env) {
  const hash = createHash('sha256');
  const single = ['package-lock.json', 'next.config.ts', 'postcss.config.mjs', 'tsconfig.json'].map((name) =>
    join(root, name),
  );
  for (const path of [...single, ...filesIn(join(root, 'src'))])
    if (statSync(path).isFile()) hash.update(path.slice(root.length)).update(readFileSync(path));
  const stamp = hash.digest('hex');
  const file = join(root, '.next', 'netting-stamp');
  if (existsSync(file) && readFileSync(file, 'utf8') === stamp) return;
  say('Building the application …');
  const next = join(root, 'node_modules/next/dist/bin/next');
  const { code, said } = await runToEnd(process.execPath, [next, 'build'], { env, quiet: true });
  if (code !== 0) throw new Error(`The application could not be built${whyNot()}:\n${said.slice(-6_000)}`);
  writeFileSync(file, stamp);
}
