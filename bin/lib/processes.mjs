import { spawn } from 'node:child_process';
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import net from 'node:net';
import { join } from 'node:path';
import { LogFile } from './log-file.mjs';
import { fail, say } from './say.mjs';
import { root } from './settings.mjs';

const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

export function portIsFree(port, host = '127.0.0.1') {
  return new Promise((resolve) => {
    const server = net.createServer();
    server.once('error', () => resolve(false));
    server.listen(port, host, () => server.close(() => resolve(true)));
  });
}

/** Waits until `ready` says so, or ends with a sentence. */
export async function waitFor(ready, what, ms = 60_000) {
  const until = Date.now() + ms;
  while (Date.now() < until) {
    if (await ready().catch(() => false)) return;
    await pause(60);
  }
  throw new Error(`${what} did not become ready within ${Math.round(ms / 1000)} seconds.`);
}

export const answers = (url) => async () => (await fetch(url, { signal: AbortSignal.timeout(2_000) })).ok;

/** A process of this data folder, told by its environment: programs may rename themselves, and numbers are used again. */
const isOurs = (pid, folder) => {
  try {
    return readFileSync(`/proc/${pid}/environ`, 'utf8').split('\0').includes(`NETTING_DATA=${folder}`);
  } catch {
    return false;
  }
};

/** A signal to a program and to all that it has started. */
function tell(pid, signal) {
  try {
    process.kill(-pid, signal);
  } catch {
    // It has ended meanwhile.
  }
}

/** The processes of one stack: started, watched, started again when they die, stopped in order. */
export class Processes {
  #folder;
  #env;
  #running = new Map();
  #stopping = false;
  /** What is on its way down. */
  #ending = new Set();

  constructor(folder, env) {
    this.#folder = folder;
    this.#env = env;
    // Whatever ends this program at once ends what it has started.
    process.once('exit', () => {
      for (const { child } of [...this.#running.values()].reverse()) tell(child.pid, 'SIGTERM');
    });
  }

  get pidFile() {
    return join(this.#folder, 'processes.json');
  }

  /** Ends what an earlier start left behind when it was killed. */
  async endLeftOvers() {
    if (!existsSync(this.pidFile)) return;
    const left = JSON.parse(readFileSync(this.pidFile, 'utf8')).filter((pid) => isOurs(pid, this.#folder));
    if (left.length) say('Ending what an earlier start left running …');
    for (const pid of left.reverse()) process.kill(-pid, 'SIGTERM');
    await waitFor(async () => left.every((pid) => !isOurs(pid, this.#folder)), 'An earlier start', 20_000).catch(() => {
      for (const pid of left) if (isOurs(pid, this.#folder)) process.kill(-pid, 'SIGKILL');
    });
    rmSync(this.pidFile, { force: true });
  }

  #remember() {
    writeFileSync(this.pidFile, JSON.stringify([...this.#running.values()].map(({ child }) => child.pid)));
  }

  /** Starts a program under a name, in a process group of its own. */
  start(name, command, args, { cwd = root, env = {}, keepAlive = true } = {}) {
    if (this.#stopping) throw new Error(`${name} is not started: everything is being ended`);
    // The one that runs would be forgotten, and never be ended.
    if (this.#running.has(name)) throw new Error(`${name} runs already`);
    const log = new LogFile(join(this.#folder, `${name}.log`));
    // Own process group: Ctrl-C reaches only us, and we stop the others in the right order.
    const child = spawn(command, args, {
      cwd,
      env: { ...this.#env, ...env },
      stdio: ['ignore', 'pipe', 'pipe'],
      detached: true,
    });
    child.stdout.pipe(log, { end: false });
    child.stderr.pipe(log, { end: false });
    const entry = { child, ended: null };
    entry.ended = new Promise((resolve) => child.once('exit', resolve));
    this.#running.set(name, entry);
    this.#remember();
    child.once('exit', (code, signal) => {
      log.end();
      if (this.#running.get(name) !== entry) return;
      this.#running.delete(name);
      if (this.#stopping || !keepAlive) return;
      say(`${name} ended (${signal ?? code}); starting it again.`);
      setTimeout(() => !this.#stopping && this.start(name, command, args, { cwd, env, keepAlive }), 500);
    });
    return child;
  }

  names() {
    return [...this.#running.keys()];
  }

  pid(name) {
    return this.#running.get(name)?.child.pid;
  }

  async stop(name, signal = 'SIGTERM', ms = 15_000) {
    const entry = this.#running.get(name);
    if (!entry) return;
    this.#running.delete(name);
    this.#ending.add(entry.ended);
    tell(entry.child.pid, signal);
    const timer = setTimeout(() => tell(entry.child.pid, 'SIGKILL'), ms);
    await entry.ended;
    clearTimeout(timer);
    this.#ending.delete(entry.ended);
  }

  async stopAll() {
    this.#stopping = true;
    for (const name of [...this.#running.keys()].reverse()) await this.stop(name);
    // Whoever asked first may still be at it: nobody leaves before all of them are down.
    await Promise.all(this.#ending);
    rmSync(this.pidFile, { force: true });
  }
}

export async function checkPorts(settings, names = ['port', 'marketsPort', 'databasePort']) {
  const variable = { port: 'NETTING_PORT', marketsPort: 'NETTING_MARKETS_PORT', databasePort: 'NETTING_DB_PORT' };
  for (const name of names) {
    if (!(await portIsFree(settings[name])))
      fail(
        `Port ${settings[name]} is in use by another program. End that program, or choose another port with ${variable[name]}.`,
      );
  }
}
