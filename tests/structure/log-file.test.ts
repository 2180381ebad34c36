import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
// @ts-expect-error a plain module of the start command, without types
import { LogFile } from '../../bin/lib/log-file.mjs';

test('a full log becomes the one of before, and no line is lost between the two', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'log-'));
  const path = join(folder, 'worker.log');
  const log = new LogFile(path, 100) as NodeJS.WritableStream;
  for (let line = 0; line < 13; line++) log.write(`line ${String(line).padStart(2, '0')}\n`);
  await new Promise<void>((resolve) => log.end(resolve));
  const [before, now] = [join(folder, 'worker.before.log'), path].map((file) => readFileSync(file, 'utf8'));
  rmSync(folder, { recursive: true, force: true });
  expect(before?.length).toBeLessThanOrEqual(100);
  expect(`${before}${now}`.split('\n').filter(Boolean)).toHaveLength(13);
});
