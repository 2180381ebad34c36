import { spawn } from 'node:child_process';
import { root } from './settings.mjs';

/**
 * Runs a program to its end, without standing in the way of anything else; it never outlives this process.
 * @param quiet what it says is kept instead of printed; `errors`: only what goes wrong is printed
 * @returns how it ended, and what it said when `quiet`
 */
export function runToEnd(command, args, { env, quiet = false } = {}) {
  return new Promise((resolve) => {
    const stdio = quiet === 'errors' ? ['ignore', 'ignore', 'inherit'] : quiet ? ['ignore', 'pipe', 'pipe'] : 'inherit';
    const child = spawn(command, args, { cwd: root, env, stdio });
    let said = '';
    for (const stream of quiet === true ? [child.stdout, child.stderr] : [])
      stream.on('data', (part) => {
        said = (said + part).slice(-20_000);
      });
    const kill = () => child.kill('SIGKILL');
    process.once('exit', kill);
    child.once('error', (error) => {
      said += error.message;
    });
    child.once('close', (code, signal) => {
      process.off('exit', kill);
      resolve({ code, signal, said });
    });
  });
}
