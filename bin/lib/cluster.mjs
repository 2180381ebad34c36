import { join } from 'node:path';
import { buildApplication } from './build.mjs';
import { startGalera, startProxy } from './galera.mjs';
import { answers, portIsFree, waitFor } from './processes.mjs';
import { readSettings, root } from './settings.mjs';
import { startGround, startScript, startWeb } from './stack.mjs';

const workers = [1, 2, 3];
const bucket = 'photos';

/** Ports and folder of a cluster; nothing of it touches what `npm start` has made. */
export const clusterSettings = (defaults = {}) => ({
  ...readSettings({
    port: 4360,
    marketsPort: 4460,
    databasePort: 23366,
    dataFolder: '.cluster-data',
    ...defaults,
  }),
  nodesPort: 23_400,
  storePort: 4470,
});

/** Photos lie in a store of objects, as several machines would have it. */
const storeEnvironment = ({ storePort }) => ({
  NETTING_S3_ENDPOINT: `http://127.0.0.1:${storePort}`,
  NETTING_S3_BUCKET: bucket,
  NETTING_S3_KEY: 'S3RVER',
  NETTING_S3_SECRET: 'S3RVER',
  // What stands before the web processes is believed.
  NETTING_TRUSTED_PROXIES: '127.0.0.1',
});

const startStore = (processes, { dataFolder, storePort }) =>
  processes.start('store', process.execPath, [
    join(root, 'node_modules/s3rver/bin/s3rver.js'),
    '--silent',
    `--directory=${join(dataFolder, 'store')}`,
    '--address=127.0.0.1',
    `--port=${storePort}`,
    '--configure-bucket',
    bucket,
  ]);

/**
 * Three database servers, two web processes and three workers, with one address before them all: the same programs as
 * on one machine, told other ports.
 */
export async function startCluster(told) {
  const settings = { ...told, environment: storeEnvironment(told) };
  const webPorts = [settings.port + 1, settings.port + 2];
  let nodes = [];
  const { processes, env } = await startGround(settings, async (running, _settings, secrets) => {
    startStore(running, settings);
    nodes = await startGalera(running, settings, secrets);
    await startProxy(running, settings, nodes, webPorts);
    await waitFor(async () => !(await portIsFree(settings.databasePort)), 'What stands before the database');
  });
  return {
    processes,
    env,
    nodes,
    /** Once the tables are there. */
    async startApplication() {
      for (const number of workers) startScript(processes, `worker-${number}`, 'src/worker/main.ts');
      startScript(processes, 'tasks', 'src/worker/tasks.ts');
      await buildApplication(env);
      for (const [at, port] of webPorts.entries()) startWeb(processes, `web-${at + 1}`, port, '127.0.0.1');
      await waitFor(answers(`http://127.0.0.1:${settings.port}/api/health`), 'The application');
    },
  };
}
