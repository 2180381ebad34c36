import { spawnSync } from 'node:child_process';
import { join } from 'node:path';

const root = join(__dirname, '..', '..');
/** Two who end everything at the same moment, while a third still wants to start something. */
const script = `
import { mkdtempSync } from 'node:fs';
import { Processes } from '${join(root, 'bin/lib/processes.mjs')}';
const folder = mkdtempSync('/tmp/processes-');
const processes = new Processes(folder, { ...process.env, NETTING_DATA: folder });
// It takes its time to go.
processes.start('slow', 'sh', ['-c', 'trap "sleep 0.6; exit 0" TERM; echo up; while :; do sleep 0.05; done']);
const pid = processes.pid('slow');
await new Promise((resolve) => setTimeout(resolve, 300));
const first = processes.stopAll();
await processes.stopAll();
let left = true;
try { process.kill(pid, 0); } catch { left = false; }
let refused = false;
try { processes.start('late', 'sleep', ['5']); } catch { refused = true; }
await first;
console.log(JSON.stringify({ left, refused, names: processes.names() }));
`;

test('nobody leaves before everything is down, and nothing is started meanwhile', () => {
  const { stdout, stderr } = spawnSync(process.execPath, ['--input-type=module', '-e', script], { encoding: 'utf8' });
  expect(stderr).toBe('');
  expect(JSON.parse(stdout.trim().split('\n').at(-1) ?? '')).toEqual({ left: false, refused: true, names: [] });
});

const leaving = `
import { mkdtempSync } from 'node:fs';
import { Processes } from '${join(root, 'bin/lib/processes.mjs')}';
const folder = mkdtempSync('/tmp/processes-');
const processes = new Processes(folder, { ...process.env, NETTING_DATA: folder });
processes.start('one', 'sh', ['-c', 'sleep 60 & wait']);
processes.start('two', 'sleep', ['60']);
console.log(JSON.stringify([processes.pid('one'), processes.pid('two')]));
process.exit(1);
`;

test('who is ended at once leaves nothing running', async () => {
  const { stdout } = spawnSync(process.execPath, ['--input-type=module', '-e', leaving], { encoding: 'utf8' });
  const pids = JSON.parse(stdout) as number[];
  expect(pids).toHaveLength(2);
  const runs = (pid: number) => {
    try {
      // The whole group: what it has started, too.
      process.kill(-pid, 0);
      return true;
    } catch {
      return false;
    }
  };
  const until = Date.now() + 10_000;
  while (pids.some(runs) && Date.now() < until) await new Promise((resolve) => setTimeout(resolve, 50));
  expect(pids.filter(runs)).toEqual([]);
});
