import { join } from 'node:path';
import { buildApplication } from './build.mjs';
import { startDatabase } from './mariadb.mjs';
import { answers, checkPorts, Processes, waitFor } from './processes.mjs';
import { runToEnd } from './run.mjs';
import { fail } from './say.mjs';
import { environmentOf, prepareDataFolder, root } from './settings.mjs';

/** Runs one of our TypeScript programs to its end. */
export async function runScript(script, env, args = []) {
  const { code, signal } = await runToEnd(process.execPath, ['--import', 'tsx', join(root, script), ...args], { env });
  if (code !== 0) throw new Error(`${script} ended with ${signal ?? code}`);
}

export const startScript = (processes, name, script, options = {}) =>
  processes.start(name, process.execPath, ['--import', 'tsx', join(root, script)], options);

/**
 * Data folder, ports, database, tables and stand-in marketplaces: what everything else needs.
 * @param startData starts the database: one server, or what does its work
 */
export async function startGround(settings, startData = startDatabase) {
  const secrets = prepareDataFolder(settings);
  const env = environmentOf(settings);
  const processes = new Processes(settings.dataFolder, env);
  endOnSignal(processes);
  await processes.endLeftOvers();
  await checkPorts(settings);
  await startData(processes, settings, secrets);
  startScript(processes, 'marketplaces', 'marketplaces/server.ts');
  try {
    await runScript('src/db/migrate.ts', env);
  } catch (error) {
    await processes.stopAll();
    fail(
      `The tables could not be brought up to date: ${error.message}. The log is ${join(settings.dataFolder, 'database.log')}.`,
    );
  }
  await waitFor(answers(`http://127.0.0.1:${settings.marketsPort}/health`), 'The marketplaces');
  return { processes, env };
}

export const startWeb = (processes, name, port, host) =>
  processes.start(name, process.execPath, ['--import', 'tsx', join(root, 'src/web/main.ts'), String(port), host]);

/** The web application, and what works behind it: a page is what is waited for, so it has the machine to itself first. */
export async function startApplication(processes, settings, env) {
  await buildApplication(env);
  startWeb(processes, 'web', settings.port, settings.host);
  await waitFor(answers(`http://127.0.0.1:${settings.port}/api/health`), 'The application');
  startScript(processes, 'worker', 'src/worker/main.ts');
  startScript(processes, 'tasks', 'src/worker/tasks.ts');
}

/** All that was begun, and their common end. */
const begun = new Set();
let ended = null;
const endAll = (code) => {
  ended ??= (async () => {
    for (const one of [...begun].reverse()) await one.stopAll();
    process.exit(code);
  })();
  return ended;
};

/** Ends everything on Ctrl-C and on a request to end, from the moment in which the first program runs. */
export function endOnSignal(processes) {
  if (begun.size === 0) for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void endAll(0));
  begun.add(processes);
  return endAll;
}
