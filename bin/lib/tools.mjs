import { spawn } from 'node:child_process';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { say } from './say.mjs';
import { root } from './settings.mjs';

/** Runs the test tools one after the other or side by side, and counts what passed. */
export class Tools {
  passed = 0;
  failed = 0;
  #out;
  #began;
  #running = new Set();

  constructor(out, began) {
    this.#out = out;
    this.#began = began;
  }

  stop() {
    for (const child of this.#running) child.kill('SIGTERM');
  }

  /** Not the blocking kind, so that Ctrl-C is heard while a tool runs. */
  #run(title, tool, rest, env) {
    const since = Math.round((Date.now() - this.#began) / 1_000);
    say(`\n── ${title} (after ${since} s)`);
    const program = tool.includes('/') ? join(root, 'node_modules', tool) : join(root, 'node_modules', '.bin', tool);
    return new Promise((resolve) => {
      const child = spawn(program, rest, { cwd: root, env, stdio: 'inherit' });
      this.#running.add(child);
      const end = (fine) => {
        this.#running.delete(child);
        resolve(fine);
      };
      child.once('error', () => end(false));
      child.once('exit', (code) => end(code === 0));
    });
  }

  async check(title, tool, ...rest) {
    if (await this.#run(title, tool, rest, process.env)) this.passed++;
    else this.failed++;
  }

  async jest(title, project, env, more = []) {
    const file = join(this.#out, `${title.replace(/\W+/g, '-')}.json`);
    const alone = project === 'integration' ? ['--runInBand', '--testTimeout=180000'] : [];
    const fine = await this.#run(
      title,
      'jest',
      ['--selectProjects', project, ...alone, '--passWithNoTests', '--json', `--outputFile=${file}`, ...more],
      env,
    );
    const result = existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : { numPassedTests: 0, numFailedTests: 1 };
    const late = (result.testResults ?? [])
      .flatMap((one) => one.assertionResults)
      .filter((one) => one.status === 'passed' && one.invocations > 1);
    if (late.length > 0) say(`Passed only at a second try:\n${late.map((one) => `  ${one.fullName}`).join('\n')}`);
    this.passed += result.numPassedTests;
    this.failed += result.numFailedTests + (fine || result.numFailedTests ? 0 : 1);
  }

  /** The names of the browser tests' files. */
  browserFiles() {
    return readdirSync(join(root, 'tests', 'browser')).flatMap((name) => /^(.+)\.spec\.ts$/.exec(name)?.[1] ?? []);
  }

  async browser(title, env, files) {
    const file = join(this.#out, `${title.replace(/\W+/g, '-')}.json`);
    const names = files.map((name) => (/^[\w-]+$/.test(name) ? `/${name}.spec` : name));
    const output = join(this.#out, title.replace(/\W+/g, '-'));
    const fine = await this.#run(title, 'playwright', ['test', ...names, `--output=${output}`], {
      ...env,
      PLAYWRIGHT_JSON_OUTPUT_NAME: file,
    });
    const stats = existsSync(file)
      ? JSON.parse(readFileSync(file, 'utf8')).stats
      : { expected: 0, unexpected: 1, flaky: 0 };
    if (stats.flaky > 0)
      say(`${stats.flaky} of the browser tests passed only at a second try; the list above names them.`);
    this.passed += stats.expected + stats.flaky;
    this.failed += stats.unexpected + (fine || stats.unexpected ? 0 : 1);
  }
}
