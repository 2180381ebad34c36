import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { runToEnd } from './run.mjs';
import { fail, say } from './say.mjs';
import { root } from './settings.mjs';

const galeraLibrary = '/usr/lib/galera/libgalera_smm.so';
const has = (program) =>
  program === 'galera'
    ? existsSync(galeraLibrary)
    : spawnSync('sh', ['-c', `command -v ${program} || test -x /usr/sbin/${program}`]).status === 0;
/** Packages that would start a server of their own, as a service of the machine. */
const services = { 'mariadb-server': 'mariadb', haproxy: 'haproxy' };

/** @returns what is wrong where Debian's packages that are missing could not be installed, with root or sudo; else null */
async function installPackages(wanted) {
  const missing = Object.entries(wanted).filter(([program]) => !has(program));
  if (missing.length === 0) return null;
  const packages = [...new Set(missing.flatMap(([, names]) => names))];
  say(`Installing ${packages.join(', ')} …`);
  const sudo = process.getuid?.() === 0 ? [] : ['sudo'];
  if (!has('apt-get') || (sudo.length && !has('sudo')))
    return `${packages.join(', ')} must be installed first (apt-get with root or sudo is needed for that).`;
  const run = (...args) => {
    const [program, ...rest] = [...sudo, 'env', 'DEBIAN_FRONTEND=noninteractive', 'apt-get', ...args];
    // Not read by us: a server that is started on the way would keep it open.
    return runToEnd(program, rest, { quiet: 'errors' });
  };
  await run('update', '-qq');
  const { code } = await run('install', '-y', '-qq', '--no-install-recommends', ...packages);
  if (code !== 0) return `${packages.join(', ')} could not be installed. Look at the lines above, then start again.`;
  // What we run, we start ourselves and end again.
  const started = packages.flatMap((name) => services[name] ?? []);
  if (started.length && existsSync('/run/systemd/system'))
    spawnSync('sh', ['-c', `${[...sudo, 'systemctl disable --now', ...started].join(' ')}`]);
  return null;
}

// mariadb-install-db calls my_print_defaults, which lies in another package that nothing else brings along.
export const packagesToRun = {
  mariadbd: ['mariadb-server-core'],
  'mariadb-install-db': ['mariadb-server-core'],
  my_print_defaults: ['mariadb-client-core'],
  // Backups are written by it.
  'mariadb-dump': ['mariadb-client'],
};
/** Several servers as one: MariaDB with Galera, the scripts that copy a node’s state, and what stands before them all. */
export const packagesOfCluster = {
  ...packagesToRun,
  galera: ['galera-4'],
  wsrep_sst_mariabackup: ['mariadb-server'],
  mariabackup: ['mariadb-backup'],
  socat: ['socat'],
  haproxy: ['haproxy'],
};
/** Only tests and the bench need a browser, clips before somebody wants the first one, pictures of printed pages, and a second reader of what files say. */
export const packagesToTest = {
  ...packagesToRun,
  chromium: ['chromium'],
  ffmpeg: ['ffmpeg'],
  pdftoppm: ['poppler-utils'],
  // Another program that reads what is written into pictures.
  exiftool: ['libimage-exiftool-perl'],
};

/**
 * The npm packages as the lock file says (`npm ci` refuses lock files without the other systems’ packages); nothing is done
 * when they are there.
 * @returns what is wrong where they could not be installed; else null
 */
async function installModules() {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  const stamp = join(root, 'node_modules', '.netting-lock');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return null;
  say('Installing npm packages …');
  const { code, said } = await runToEnd(
    'npm',
    ['install', '--no-save', '--loglevel=error', '--no-audit', '--no-fund', '--include=dev'],
    { env: { ...process.env, NODE_ENV: 'development' }, quiet: true },
  );
  if (code !== 0) return `The npm packages could not be installed; then start again:\n${said.slice(-3_000)}`;
  mkdirSync(join(root, 'node_modules'), { recursive: true });
  writeFileSync(stamp, lock);
  return null;
}

/**
 * Makes the machine ready: Debian's packages and npm's, both at once, each where something is missing. It ends here with a
 * word where that cannot be.
 * @param modules whether npm's are needed, too
 */
export async function prepareMachine(packages, { modules = true } = {}) {
  const wrong = (await Promise.all([modules ? installModules() : null, installPackages(packages)])).filter(Boolean);
  if (wrong.length) fail(wrong.join('\n\n'));
}

export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    fail(`Node.js 20.19 or newer is needed, this is ${process.versions.node}.`);
}
