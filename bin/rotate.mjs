#!/usr/bin/env node
// Changes the key that secrets are sealed with. Netting must not run meanwhile. Interrupted, the same command goes on.
import { randomBytes } from 'node:crypto';
import { readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { checkNode, packagesToRun, prepareMachine } from './lib/install.mjs';
import { startDatabase } from './lib/mariadb.mjs';
import { checkPorts, Processes } from './lib/processes.mjs';
import { fail } from './lib/say.mjs';
import { environmentOf, prepareDataFolder, readSettings } from './lib/settings.mjs';
import { runScript } from './lib/stack.mjs';

checkNode();
await prepareMachine(packagesToRun);
const settings = readSettings();
// While it runs, its database does: two keys at a time are known to no running process.
await checkPorts(settings, ['databasePort']);
if (process.env.NETTING_SECRET || process.env.NETTING_SECRET_FILE)
  fail('The key comes from the settings: docs/running.md says how to change it there.');
const file = join(settings.dataFolder, 'secrets.json');
/** Written aside and renamed: killed at any moment, one of the two is there whole. */
const keep = (secrets) => {
  writeFileSync(`${file}.new`, JSON.stringify(secrets), { mode: 0o600 });
  renameSync(`${file}.new`, file);
};

prepareDataFolder(settings);
const secrets = JSON.parse(readFileSync(file, 'utf8'));
// Both keys are there until everything is sealed with the new one.
if (!secrets.previousSecret) {
  secrets.previousSecret = secrets.appSecret;
  secrets.appSecret = randomBytes(32).toString('base64url');
  keep(secrets);
}
const env = environmentOf(settings);
const processes = new Processes(settings.dataFolder, env);
try {
  await processes.endLeftOvers();
  await startDatabase(processes, settings, secrets);
  await runScript('src/db/migrate.ts', env);
  await runScript('src/worker/seal-anew.ts', env);
  const { previousSecret: _before, ...now } = secrets;
  keep(now);
} catch (error) {
  console.error(`${error.message}\nNothing is lost: both keys are kept. Run this again.`);
  process.exitCode = 1;
}
await processes.stopAll();
