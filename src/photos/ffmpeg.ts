import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import { NettingError } from '../core/errors';

const run = promisify(execFile);

const isThere = async (): Promise<boolean> =>
  run('ffmpeg', ['-version']).then(
    () => true,
    () => false,
  );

let installing: Promise<boolean> | null = null;

/** So long another installation is waited for, in seconds. */
const lockSeconds = 300;

/** Debian's package, as root or by sudo; the list of packages is read anew where it is old. */
async function install(): Promise<boolean> {
  const isRoot = process.getuid?.() === 0;
  const apt = (args: string[]) => {
    const [command, ...rest] = isRoot ? ['apt-get', ...args] : ['sudo', '-n', 'apt-get', ...args];
    return run(command ?? 'apt-get', rest, {
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
      timeout: 600_000,
    });
  };
  const wanted = ['-o', `DPkg::Lock::Timeout=${lockSeconds}`, 'install', '-y', '--no-install-recommends', 'ffmpeg'];
  await apt(wanted).catch(() =>
    apt(['update'])
      .then(() => apt(wanted))
      .catch(() => undefined),
  );
  return isThere();
}

/**
 * Sees to it that clips can be made: the program is installed when the first one is wanted.
 * @param alive told now and then while it is installed
 * @throws {NettingError} when it cannot be installed here
 */
export async function needFfmpeg(alive?: () => Promise<unknown>): Promise<void> {
  if (await isThere()) return;
  installing ??= install().finally(() => {
    installing = null;
  });
  const signs = alive && setInterval(() => void alive(), 2_000);
  const isInstalled = await installing.finally(() => clearInterval(signs));
  if (!isInstalled)
    throw new NettingError('not-ready', 'Clips need ffmpeg, which could not be installed here', {
      field: 'clip',
      fix: 'Install Debian’s package ffmpeg, then try again',
    });
}

/** Runs it; what it says last is the reason when it fails. */
export async function ffmpeg(args: readonly string[]): Promise<void> {
  try {
    await run('ffmpeg', ['-hide_banner', '-loglevel', 'error', '-y', ...args], {
      maxBuffer: 4_000_000,
      timeout: 300_000,
    });
  } catch (error) {
    const said =
      String((error as { stderr?: unknown }).stderr ?? '')
        .trim()
        .split('\n')
        .at(-1) ?? '';
    throw new Error(`ffmpeg: ${said.slice(0, 300)}`);
  }
}
