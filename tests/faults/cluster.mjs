import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import mysql from 'mysql2/promise';
import { startNode } from '../../bin/lib/galera.mjs';
import { pause } from '../support/drive.mjs';

const group = (name) => new RegExp(`^${name}-\\d$`);
const groups = { worker: group('worker'), web: group('web'), database: group('node') };

/**
 * The processes of a cluster under the names that one machine has: `database` is any node, `worker` any worker. Of the
 * nodes one is away at most; two that are away at once are more than three of them promise to bear.
 */
export function asOneMachine(processes, nodes, random) {
  const inStep = async () => {
    const known = await Promise.all(
      nodes.map((node) =>
        fetch(`http://127.0.0.1:${node.check}/`, { signal: AbortSignal.timeout(2_000) }).then(
          (answer) => answer.ok,
          () => false,
        ),
      ),
    );
    return known.every(Boolean);
  };
  let whole = true;
  let looking = true;
  let killed = { name: null, pid: null };
  (async () => {
    while (looking) {
      whole = await inStep();
      await pause(200);
    }
  })();
  const among = (pattern) => processes.names().filter((name) => pattern.test(name));
  return {
    pid(name) {
      const pattern = groups[name];
      if (!pattern) return processes.pid(name);
      if (name === 'database') {
        // The node that was killed before must have been seen to be away, and back.
        if (!whole || (killed.name && processes.pid(killed.name) === killed.pid)) return undefined;
        whole = false;
      }
      const names = among(pattern);
      const one = names[Math.floor(random() * names.length)];
      const pid = one && processes.pid(one);
      if (name === 'database') killed = { name: one, pid };
      return pid;
    },
    // One more worker of the histories is not one of the cluster's own.
    async stop(name) {
      if (processes.pid(`${name}-more`)) await processes.stop(`${name}-more`);
    },
    start: (name, ...args) => processes.start(`${name}-more`, ...args),
    end() {
      looking = false;
    },
  };
}

/** The node that all connections go to at the moment. */
export async function nodeInUse(settings, nodes) {
  const { databasePassword: password } = JSON.parse(readFileSync(join(settings.dataFolder, 'secrets.json'), 'utf8'));
  const connection = await mysql.createConnection({
    host: '127.0.0.1',
    port: settings.databasePort,
    user: 'netting',
    password,
  });
  const [[{ name }]] = await connection.query('select @@wsrep_node_name as name');
  await connection.end();
  return nodes.find((one) => one.name === name);
}

/** Takes the node in use away for as long as something lasts. */
export async function withoutNode({ processes, settings, nodes }, work) {
  const node = await nodeInUse(settings, nodes);
  await processes.stop(node.name, 'SIGKILL');
  try {
    return await work(node.name);
  } finally {
    startNode(processes, node);
  }
}
