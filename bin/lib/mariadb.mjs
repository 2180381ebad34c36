import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { memoryHere } from './memory.mjs';
import { portIsFree, waitFor } from './processes.mjs';
import { fail } from './say.mjs';

export const asUser = () => (process.getuid?.() === 0 ? ['--user=root'] : []);

/** Makes an empty database folder, once. */
export function makeFolder(folder) {
  const marker = join(folder, '.complete');
  if (existsSync(marker)) return false;
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  const made = spawnSync(
    'mariadb-install-db',
    ['--no-defaults', `--datadir=${folder}`, '--auth-root-authentication-method=normal', '--skip-test-db', ...asUser()],
    { encoding: 'utf8' },
  );
  if (made.status !== 0)
    fail(
      `The database folder ${folder} could not be made: ${(made.stderr || made.stdout || String(made.error)).trim().split('\n').at(-1)}`,
    );
  writeFileSync(marker, '');
  return true;
}

/** Who may come in, and the database itself. */
export const usersSql = (password) =>
  [
    `ALTER USER 'root'@'localhost' IDENTIFIED BY '${password}';`,
    `CREATE DATABASE IF NOT EXISTS netting CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;`,
    `CREATE USER IF NOT EXISTS 'netting'@'127.0.0.1' IDENTIFIED BY '${password}';`,
    `GRANT ALL ON \`netting%\`.* TO 'netting'@'127.0.0.1';`,
  ].join('\n');

/** What a server of ours is told, whether it stands alone or with others. */
export const serverOptions = (memory) => [
  '--bind-address=127.0.0.1',
  '--skip-name-resolve',
  '--character-set-server=utf8mb4',
  '--collation-server=utf8mb4_unicode_ci',
  '--max-allowed-packet=64M',
  '--max-connections=400',
  '--local-infile=1',
  `--innodb-buffer-pool-size=${memory}M`,
  // No log of statements is kept, so rows of two writers may have their numbers in turns.
  '--innodb-autoinc-lock-mode=2',
  '--innodb-ft-min-token-size=2',
  '--tmp-table-size=128M',
  '--max-heap-table-size=128M',
];

/** The last line of a server's log that says what went wrong. */
export const lastError = (log) =>
  existsSync(log)
    ? (readFileSync(log, 'utf8')
        .split('\n')
        .filter((line) => /ERROR/.test(line))
        .at(-1) ?? '')
    : '';

/** Starts MariaDB on loopback with its own data folder; makes the folder at the first start. */
export async function startDatabase(processes, settings, secrets) {
  const folder = join(settings.dataFolder, 'mariadb');
  makeFolder(folder);
  const users = join(settings.dataFolder, 'mariadb-users.sql');
  writeFileSync(users, usersSql(secrets.databasePassword), { mode: 0o600 });
  const memory = Math.round(Math.min(2_048, Math.max(256, memoryHere() / 2 ** 20 / 8)));
  // A folder of its own for temporary tables: a server that starts clears what it finds there.
  const temporary = join(settings.dataFolder, 'mariadb-tmp');
  mkdirSync(temporary, { recursive: true });
  const log = join(settings.dataFolder, 'mariadb-error.log');
  rmSync(log, { force: true });
  processes.start('database', 'mariadbd', [
    '--no-defaults',
    ...asUser(),
    `--datadir=${folder}`,
    `--socket=${join(settings.dataFolder, 'db.sock')}`,
    `--pid-file=${join(settings.dataFolder, 'mariadb.pid')}`,
    `--log-error=${log}`,
    `--port=${settings.databasePort}`,
    `--init-file=${users}`,
    `--tmpdir=${temporary}`,
    ...serverOptions(memory),
    `--innodb-log-file-size=${settings.redoMegabytes ?? 512}M`,
  ]);
  const answersThere = async () =>
    !(await portIsFree(settings.databasePort)) && processes.pid('database') !== undefined;
  await waitFor(answersThere, 'The database', 60_000).catch(() =>
    fail(
      `The database did not start. ${lastError(log)}\nIts log is ${log}. If the disk was full, free some space and start again.`,
    ),
  );
}
