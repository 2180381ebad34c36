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

/** The worker, what does long work, and the web application. */
export async function startApplication(processes, settings, env) {
  startScript(processes, 'worker', 'src/worker/main.ts');
  startScript(processes, 'tasks', 'src/worker/tasks.ts');
  await buildApplication(env);
  startWeb(processes, 'web', settings.port, settings.host);
  await waitFor(answers(`http://127.0.0.1:${settings.port}/api/health`), 'The application');
}

/** Ends everything on Ctrl-C and on a request to end. */
export function endOnSignal(processes) {
  let ending = false;
  const end = async (code) => {
    if (ending) return;
    ending = true;
    await processes.stopAll();
    process.exit(code);
  };
  process.on('SIGINT', () => void end(0));
  process.on('SIGTERM', () => void end(0));
  process.on('SIGHUP', () => void end(0));
  return end;
}
