import { spawn } from 'node:child_process';

export type Ended = { status: number | null; stdout: string; stderr: string };

/**
 * Runs one of the project's own scripts to its end. Not the blocking kind: a connection that the other side closes
 * meanwhile must be noticed, or the next request goes out on it.
 */
export async function runScript(script: string, args: string[] = [], env: NodeJS.ProcessEnv = process.env) {
  const child = spawn(process.execPath, [script, ...args], { env });
  const ended: Ended = { status: null, stdout: '', stderr: '' };
  child.stdout.setEncoding('utf8').on('data', (text: string) => {
    ended.stdout += text;
  });
  child.stderr.setEncoding('utf8').on('data', (text: string) => {
    ended.stderr += text;
  });
  ended.status = await new Promise((resolve, reject) => {
    child.once('error', reject);
    child.once('close', resolve);
  });
  return ended;
}
