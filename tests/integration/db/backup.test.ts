import { type ChildProcess, spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import mysql from 'mysql2/promise';
import { publishItems, readyItem, stateOn } from '../../support/items';
import { runScript } from '../../support/run-script';
import { accountOf, call, control, marketListings, until } from '../../support/stack';

const folder = mkdtempSync(join(tmpdir(), 'netting-backup-'));
const restored = join(folder, 'data');
const file = join(folder, 'all.tar.gz');
const port = 23_396;
const there = {
  ...process.env,
  NODE_ENV: 'production' as const,
  NETTING_DATA: restored,
  NETTING_DB_PORT: String(port),
};
const started: ChildProcess[] = [];
const run = async (script: string, args: string[], env: NodeJS.ProcessEnv) => {
  const ended = await runScript(script, args, env);
  if (ended.status !== 0) throw new Error(`${script}: ${ended.stderr}${ended.stdout}`);
  return ended.stdout;
};
function start(command: string, args: string[]): ChildProcess {
  const child = spawn(command, args, { env: there, stdio: 'ignore' });
  started.push(child);
  return child;
}
afterAll(async () => {
  for (const child of started.reverse()) {
    const gone = new Promise((resolve) => child.once('exit', resolve));
    if (child.exitCode === null && child.kill('SIGTERM')) await gone;
  }
  rmSync(folder, { recursive: true, force: true });
});

test('a backup of the running system, brought back elsewhere, hears and compares before it sends anything', async () => {
  const shop = await accountOf('Shopfront');
  const [sold, later] = await Promise.all([readyItem({}, 5), readyItem({}, 2)]);
  await publishItems([sold.id], [shop]);
  await until(
    () => stateOn(sold.id, shop),
    (state) => state === 'live',
  );
  expect(await run('bin/backup.mjs', [file], process.env)).toContain('Kept everything');

  // What the backup does not know: a sale there, and a listing that was made since.
  const { order } = await control('shopfront', 'buy', { reference: sold.sku, quantity: 3 });
  await publishItems([later.id], [shop]);
  await until(
    () => stateOn(later.id, shop),
    (state) => state === 'live',
  );
  const quantityThere = async () => (await marketListings('shopfront', sold.sku))[0]?.summary.quantity;
  await until(quantityThere, (quantity) => quantity === 2);

  expect(await run('bin/restore.mjs', [file], there)).toContain('is back');
  // Into a folder that holds something it is not brought back.
  expect((await runScript('bin/restore.mjs', [file], there)).status).not.toBe(0);

  // The key of its secrets is changed, also when an earlier try was cut off; what follows reads them with the new one.
  type Secrets = { databasePassword: string; appSecret: string; previousSecret?: string };
  const secretsNow = () => JSON.parse(readFileSync(join(restored, 'secrets.json'), 'utf8')) as Secrets;
  const old = secretsNow();
  expect(await run('bin/rotate.mjs', [], there)).toMatch(/[1-9]\d* secrets are sealed with the new key/);
  const anew = secretsNow();
  expect(anew.appSecret).not.toBe(old.appSecret);
  expect(anew.previousSecret).toBeUndefined();
  const third = randomBytes(32).toString('base64url');
  writeFileSync(
    join(restored, 'secrets.json'),
    JSON.stringify({ ...anew, appSecret: third, previousSecret: anew.appSecret }),
  );
  await run('bin/rotate.mjs', [], there);
  expect(secretsNow()).toEqual({ ...old, appSecret: third });
  const { databasePassword } = secretsNow();
  start('mariadbd', [
    '--no-defaults',
    ...(process.getuid?.() === 0 ? ['--user=root'] : []),
    `--datadir=${join(restored, 'mariadb')}`,
    `--socket=${join(restored, 'db.sock')}`,
    `--port=${port}`,
    '--bind-address=127.0.0.1',
    '--skip-name-resolve',
    '--innodb-ft-min-token-size=2',
  ]);
  const connect = () =>
    mysql.createConnection({
      host: '127.0.0.1',
      port,
      user: 'netting',
      password: databasePassword,
      database: 'netting',
    });
  const connection = await until(
    () => connect().catch(() => null),
    (one) => one !== null,
  );
  if (!connection) throw new Error('the database did not start');
  const ask = async <T>(sql: string) => (await connection.query(sql))[0] as T[]; // rows of the query above it
  // Of the other accounts the running system sends what waits; here they stay out of it.
  await connection.query(`update account set state = 'reconnect' where id <> ${shop}`);
  await connection.query(
    `delete from job where listing_id not in (select id from listing where item_id in (${sold.id}, ${later.id}))`,
  );
  expect(await ask(`select id from account where restored_at is null`)).toHaveLength(0);
  start(process.execPath, ['--import', 'tsx', 'src/worker/main.ts']);
  await until(
    () => ask<{ restored_at: Date | null }>(`select restored_at from account where id = ${shop}`),
    ([row]) => row?.restored_at === null,
    60_000,
  );
  // The newer sale is known, and nothing of it was undone.
  const [item] = await ask<{ quantity: number }>(`select quantity from item where id = ${sold.id}`);
  expect(item?.quantity).toBe(2);
  expect(await ask(`select id from sale where order_id = '${String(order)}'`)).toHaveLength(1);
  // What was made since is linked, not made again.
  const [link] = await ask<{ remote: string }>(
    `select remote from listing where item_id = ${later.id} and account_id = ${shop}`,
  );
  expect(link?.remote).toBe('live');
  await until(
    () => ask(`select id from job where state in ('waiting', 'running') and account_id = ${shop}`),
    (jobs) => jobs.length === 0,
  );
  expect(await quantityThere()).toBe(2);
  expect(await marketListings('shopfront', later.sku)).toHaveLength(1);
  await connection.end();
  expect((await call('GET', `/items/${sold.id}`)).status).toBe(200);
}, 240_000);
