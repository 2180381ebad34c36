// Says whether a node of the database may be used: 200 while it holds what the others hold, 503 otherwise.
// Arguments: the node's port, and the port to answer on. NETTING_DATA names the folder with the password.
import { readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { join } from 'node:path';
import mysql from 'mysql2/promise';

const [node, port] = process.argv.slice(2).map(Number);
const { databasePassword: password } = JSON.parse(readFileSync(join(process.env.NETTING_DATA, 'secrets.json'), 'utf8'));
const pool = mysql.createPool({
  host: '127.0.0.1',
  port: node,
  user: 'netting',
  password,
  connectionLimit: 1,
  connectTimeout: 1_000,
});

/** Joined with the majority and up to date; one that just gives its state to another is, too. */
async function isUsable() {
  const [rows] = await pool.query({
    sql: "show status where variable_name in ('wsrep_ready', 'wsrep_cluster_status', 'wsrep_local_state')",
    timeout: 1_500,
  });
  const told = Object.fromEntries(rows.map((row) => [row.Variable_name, row.Value]));
  return (
    told.wsrep_ready === 'ON' && told.wsrep_cluster_status === 'Primary' && ['2', '4'].includes(told.wsrep_local_state)
  );
}

createServer((_request, answer) => {
  isUsable()
    .catch(() => false)
    .then((usable) => answer.writeHead(usable ? 200 : 503).end(usable ? 'in step\n' : 'not in step\n'));
}).listen(port, '127.0.0.1');
