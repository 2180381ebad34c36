import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { asUser, lastError, makeFolder, serverOptions, usersSql } from './mariadb.mjs';
import { answers, waitFor } from './processes.mjs';
import { fail } from './say.mjs';
import { root } from './settings.mjs';

export const galeraLibrary = '/usr/lib/galera/libgalera_smm.so';
const megabytes = 512;

/** Where one node listens; each kind of talk has a port of its own. */
const nodeOf = (settings, number) => {
  const folder = join(settings.dataFolder, `node-${number}`);
  const first = settings.nodesPort + (number - 1) * 5;
  return {
    name: `node-${number}`,
    folder,
    data: join(folder, 'mariadb'),
    socket: join(folder, 'db.sock'),
    log: join(folder, 'mariadb-error.log'),
    config: join(folder, 'my.cnf'),
    sql: first,
    group: first + 1,
    increments: first + 2,
    state: first + 3,
    check: first + 4,
  };
};
export const nodesOf = (settings) => [1, 2, 3].map((number) => nodeOf(settings, number));

/** One node's file of settings: the scripts that copy a state read it too. */
function configOf(node, nodes, { databasePassword }) {
  const options = {
    datadir: node.data,
    socket: node.socket,
    port: node.sql,
    tmpdir: join(node.folder, 'tmp'),
    'pid-file': join(node.folder, 'mariadb.pid'),
    'log-error': node.log,
    'innodb-log-file-size': '64M',
    binlog_format: 'ROW',
    wsrep_on: 'ON',
    wsrep_provider: galeraLibrary,
    wsrep_cluster_name: 'netting',
    wsrep_cluster_address: `gcomm://${nodes.map((one) => `127.0.0.1:${one.group}`).join(',')}`,
    wsrep_node_name: node.name,
    wsrep_node_address: `127.0.0.1:${node.group}`,
    wsrep_provider_options: [
      `gmcast.listen_addr=tcp://127.0.0.1:${node.group}`,
      `ist.recv_addr=127.0.0.1:${node.increments}`,
      // What a node missed while it was away is kept so long that it need not be copied whole.
      'gcache.size=512M',
      // A node that is silent for a second is suspected, after three it is out: meanwhile nobody commits.
      'evs.keepalive_period=PT0.3S',
      'evs.inactive_check_period=PT0.3S',
      'evs.suspect_timeout=PT1S',
      'evs.inactive_timeout=PT3S',
      'evs.install_timeout=PT3S',
    ].join(';'),
    // The node that gives its state goes on answering.
    wsrep_sst_method: 'mariabackup',
    wsrep_sst_auth: `root:${databasePassword}`,
    wsrep_sst_receive_address: `127.0.0.1:${node.state}`,
    wsrep_slave_threads: 4,
    // A statement that stands alone is run again by the server when another node was before it.
    wsrep_retry_autocommit: 4,
  };
  return `[mariadbd]\n${Object.entries(options)
    .map(([name, value]) => `${name}=${value}`)
    .join('\n')}\n${serverOptions(megabytes)
    .map((one) => one.slice(2))
    .join('\n')}\n`;
}

/** Makes a node's folder: the first one with the people who may come in, the others empty, to be filled by the first. */
function prepareNode(node, nodes, secrets) {
  mkdirSync(join(node.folder, 'tmp'), { recursive: true });
  writeFileSync(node.config, configOf(node, nodes, secrets), { mode: 0o600 });
  rmSync(node.log, { force: true });
  if (!makeFolder(node.data) || node !== nodes[0]) return;
  const sql = `FLUSH PRIVILEGES;\n${usersSql(secrets.databasePassword)}\n`;
  const made = spawnSync('mariadbd', ['--no-defaults', ...asUser(), `--datadir=${node.data}`, '--bootstrap'], {
    input: sql,
    encoding: 'utf8',
  });
  if (made.status === 0) return;
  rmSync(join(node.data, '.complete'));
  fail(`The first node could not be made: ${made.stderr.trim().split('\n').at(-1)}`);
}

/** How far a node has come that does not run: what it wrote down at its end, or what its own recovery finds. */
function positionOf(node) {
  const recovered = spawnSync(
    'mariadbd',
    [`--defaults-file=${node.config}`, ...asUser(), '--wsrep-recover', '--skip-log-error'],
    { encoding: 'utf8' },
  );
  const found = /Recovered position:\s*([\w-]+):(-?\d+)/.exec(recovered.stderr ?? '');
  return found ? Number(found[2]) : -1;
}

/** The node that knows most begins the cluster; the others join it. */
function chooseFirst(nodes) {
  const positions = nodes.map(positionOf);
  const first = nodes[positions.indexOf(Math.max(...positions))];
  const state = join(first.data, 'grastate.dat');
  if (existsSync(state))
    writeFileSync(state, readFileSync(state, 'utf8').replace('safe_to_bootstrap: 0', 'safe_to_bootstrap: 1'));
  return first;
}

/** A node finds how far it had come before it starts: also after it was killed it fetches only what it missed. */
export const startNode = (processes, node) =>
  processes.start(node.name, 'sh', [
    '-c',
    `at=$(mariadbd --defaults-file="$1" ${asUser().join(' ')} --wsrep-recover --skip-log-error 2>&1 | sed -n 's/.*Recovered position: *//p' | tail -n 1)
     new=""; if [ -e "$2/begin" ]; then rm "$2/begin"; new=--wsrep-new-cluster; fi
     exec mariadbd --defaults-file="$1" ${asUser().join(' ')} \${at:+--wsrep-start-position="$at"} $new`,
    'node',
    node.config,
    node.folder,
  ]);

/** Says over HTTP whether a node may be used, as what stands before the nodes asks it. */
const startCheck = (processes, node) =>
  processes.start(`${node.name}-check`, process.execPath, [
    join(root, 'bin/lib/node-check.mjs'),
    String(node.sql),
    String(node.check),
  ]);

const isReady = (node) => answers(`http://127.0.0.1:${node.check}/`);

/** Starts three MariaDB servers on loopback that hold the same, each with a data folder of its own. */
export async function startGalera(processes, settings, secrets) {
  const nodes = nodesOf(settings);
  for (const node of nodes) prepareNode(node, nodes, secrets);
  const first = chooseFirst(nodes);
  writeFileSync(join(first.folder, 'begin'), '');
  for (const node of [first, ...nodes.filter((one) => one !== first)]) {
    startNode(processes, node);
    startCheck(processes, node);
    await waitFor(isReady(node), `The database’s ${node.name}`, 120_000).catch(() =>
      fail(`The database’s ${node.name} did not start. ${lastError(node.log)}\nIts log is ${node.log}.`),
    );
  }
  return nodes;
}

/** What stands before the nodes and the web processes. */
export async function startProxy(processes, settings, nodes, webPorts) {
  const file = join(settings.dataFolder, 'haproxy.cfg');
  writeFileSync(
    file,
    readFileSync(join(root, 'deploy/haproxy.cfg'), 'utf8')
      .replaceAll('@DATABASE@', String(settings.databasePort))
      .replaceAll('@WEB@', `${settings.host}:${settings.port}`)
      .replace(
        '@NODES@',
        nodes.map((one) => `server ${one.name} 127.0.0.1:${one.sql} check port ${one.check}`).join('\n  '),
      )
      .replace('@WEBS@', webPorts.map((port, at) => `server web-${at + 1} 127.0.0.1:${port} check`).join('\n  ')),
  );
  processes.start('proxy', existsSync('/usr/sbin/haproxy') ? '/usr/sbin/haproxy' : 'haproxy', ['-db', '-f', file]);
}
