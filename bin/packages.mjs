#!/usr/bin/env node
// Writes docs/dependencies.md (`npm run packages`): every package that the project names, its licence and age, and the licences of all that come
// along. Asks the npm registry for the days on which versions were published.
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { say } from './lib/say.mjs';
import { root } from './lib/settings.mjs';

const read = (path) => JSON.parse(readFileSync(join(root, path), 'utf8'));
const own = read('package.json');
const lock = read('package-lock.json').packages;
const yearMs = 366 * 86_400_000;
/** Why what is older stays. */
const reasons = read('docs/dependencies-old.json');

const licenceOf = (path) => {
  const file = join(root, path, 'package.json');
  if (!existsSync(file)) return null;
  const { license, licenses } = JSON.parse(readFileSync(file, 'utf8'));
  const said = license ?? licenses?.map((one) => one.type).join(' OR ');
  return typeof said === 'object' ? said.type : (said ?? 'not said');
};

/** When this version was published. */
function publishedAt(name, version) {
  try {
    const times = JSON.parse(
      execFileSync('npm', ['view', name, 'time', '--json'], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] }),
    );
    return times[version] ? new Date(times[version]) : null;
  } catch {
    return null;
  }
}

const unexplained = [];
const rows = [];
for (const [group, names] of [
  ['runs', Object.keys(own.dependencies)],
  ['builds and tests', Object.keys(own.devDependencies)],
])
  for (const key of names) {
    const { version, name = key } = lock[`node_modules/${key}`];
    const at = publishedAt(name, version);
    const isOld = at && Date.now() - at.getTime() > yearMs;
    const why = reasons[key] ?? '';
    if (isOld && !why) unexplained.push(key);
    rows.push(
      `| ${key} | ${version} | ${licenceOf(`node_modules/${key}`)} | ${at ? at.toISOString().slice(0, 10) : 'not known'} | ${group} | ${isOld ? why || 'NOT EXPLAINED' : ''} |`,
    );
  }

const counts = new Map();
for (const [path, one] of Object.entries(lock)) {
  if (!path || one.dev) continue;
  const licence = licenceOf(path);
  if (licence) counts.set(licence, (counts.get(licence) ?? 0) + 1);
}
const audit = spawnSync('npm', ['audit', '--omit=dev', '--json'], { cwd: root, encoding: 'utf8' });
const told = (() => {
  try {
    return JSON.parse(audit.stdout).metadata?.vulnerabilities ?? null;
  } catch {
    return null;
  }
})();
writeFileSync(
  join(root, 'docs', 'dependencies.md'),
  `# Packages

Made by \`npm run packages\` on ${new Date().toISOString().slice(0, 10)}.

Known faults (\`npm audit\`, without what only builds and tests): ${
    told
      ? Object.entries(told)
          .map(([level, count]) => `${count} ${level}`)
          .join(', ')
      : 'the registry that was at hand answers no such question; ask where one does'
  }.

| package | version | licence | published | for | older than a year because |
| --- | --- | --- | --- | --- | --- |
${rows.join('\n')}

## Licences of all that runs

| licence | packages |
| --- | --- |
${[...counts]
  .sort((a, b) => b[1] - a[1])
  .map(([licence, count]) => `| ${licence} | ${count} |`)
  .join('\n')}
`,
);
say(
  `docs/dependencies.md: ${rows.length} packages named, ${[...counts.values()].reduce((a, b) => a + b, 0)} that run.`,
);
if (unexplained.length) say(`Older than a year and not explained: ${unexplained.join(', ')}`);
process.exit(unexplained.length ? 1 : 0);
