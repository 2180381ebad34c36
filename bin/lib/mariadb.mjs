import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { totalmem } from 'node:os';
import { join } from 'node:path';
import { portIsFree, waitFor } from './processes.mjs';
import { fail } from './say.mjs';

const asUser = () => (process.getuid?.() === 0 ? ['--user=root'] : []);

/** Starts MariaDB on loopback with its own data folder; makes the folder at the first start. */
export async function startDatabase(processes, settings, secrets) {
  const folder = join(settings.dataFolder, 'mariadb');
  const marker = join(folder, '.complete');
  if (!existsSync(marker)) {
    rmSync(folder, { recursive: true, force: true });
    mkdirSync(folder, { recursive: true });
    const made = spawnSync(
      'mariadb-install-db',
      [
        '--no-defaults',
        `--datadir=${folder}`,
        '--auth-root-authentication-method=normal',
        '--skip-test-db',
        ...asUser(),
      ],
      { encoding: 'utf8' },
    );
    if (made.status !== 0)
      fail(
        `The database folder ${folder} could not be made: ${(made.stderr || made.stdout || String(made.error)).trim().split('\n').at(-1)}`,
      );
    writeFileSync(marker, '');
  }
  const password = secrets.databasePassword;
  const users = join(settings.dataFolder, 'mariadb-users.sql');
  writeFileSync(
    users,
    [
      `ALTER USER 'root'@'localhost' IDENTIFIED BY '${password}';`,
      `CREATE DATABASE IF NOT EXISTS netting CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;`,
      `CREATE USER IF NOT EXISTS 'netting'@'127.0.0.1' IDENTIFIED BY '${password}';`,
      `GRANT ALL ON \`netting%\`.* TO 'netting'@'127.0.0.1';`,
    ].join('\n'),
    { mode: 0o600 },
  );
  const memory = Math.round(Math.min(2_048, Math.max(256, totalmem() / 2 ** 20 / 8)));
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
    '--bind-address=127.0.0.1',
    '--skip-name-resolve',
    `--init-file=${users}`,
    '--character-set-server=utf8mb4',
    '--collation-server=utf8mb4_unicode_ci',
    '--max-allowed-packet=64M',
    '--max-connections=400',
    '--local-infile=1',
    `--innodb-buffer-pool-size=${memory}M`,
    `--innodb-log-file-size=${settings.redoMegabytes ?? 512}M`,
    // No log of statements is kept, so rows of two writers may have their numbers in turns.
    '--innodb-autoinc-lock-mode=2',
    '--innodb-ft-min-token-size=2',
    '--tmp-table-size=128M',
    '--max-heap-table-size=128M',
  ]);
  const answersThere = async () =>
    !(await portIsFree(settings.databasePort)) && processes.pid('database') !== undefined;
  await waitFor(answersThere, 'The database', 60_000).catch(() => {
    const last = existsSync(log)
      ? readFileSync(log, 'utf8')
          .split('\n')
          .filter((line) => /ERROR/.test(line))
          .at(-1)
      : '';
    fail(
      `The database did not start. ${last ?? ''}\nIts log is ${log}. If the disk was full, free some space and start again.`,
    );
  });
}
