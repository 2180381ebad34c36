import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import S3rver from 's3rver';
import { cached } from './cached-store';
import { objectNames, objectStore } from './object-store';

const folder = mkdtempSync(join(tmpdir(), 'objects-'));
const there = new S3rver({
  port: 0,
  address: '127.0.0.1',
  silent: true,
  directory: join(folder, 'there'),
  configureBuckets: [{ name: 'photos', configs: [] }],
});
/** What stands before the store, and may say no, or nothing. */
let fault: 'none' | 'away' | 'busy' = 'none';
let refused = 0;
let asked = 0;
let front: Server;
let settings: Parameters<typeof objectStore>[0];

beforeAll(async () => {
  const handler = there.callback();
  front = createServer((request, answer) => {
    asked++;
    if (fault === 'none') return handler(request, answer);
    refused++;
    if (fault === 'away') request.socket.destroy();
    else answer.writeHead(503).end();
  }).listen(0, '127.0.0.1');
  await once(front, 'listening');
  await there.run();
  settings = {
    endpoint: `http://127.0.0.1:${(front.address() as AddressInfo).port}`,
    region: 'us-east-1',
    bucket: 'photos',
    prefix: 'shop/',
    keyId: 'S3RVER',
    secretKey: 'S3RVER',
  };
});
afterAll(async () => {
  front.close();
  front.closeAllConnections();
  await there.close();
  rmSync(folder, { recursive: true, force: true });
});
beforeEach(() => {
  fault = 'none';
  refused = 0;
});

test('gives back what was written, lists it, and nothing after it was removed', async () => {
  const store = objectStore(settings);
  const key = `${'ab'.repeat(32)}-view.webp`;
  expect(await store.has(key)).toBe(false);
  await store.write(key, Buffer.from('one'));
  await store.write(key, Buffer.from('two'));
  expect((await store.read(key)).toString()).toBe('two');
  expect(await objectNames(settings, 'ab')).toEqual([key]);
  expect(await objectNames(settings, 'cd')).toEqual([]);
  await store.remove(key);
  expect(await store.has(key)).toBe(false);
  await store.remove(key);
  await expect(store.read(key)).rejects.toThrow();
});

test('a large photo comes back byte for byte', async () => {
  const bytes = Buffer.from(Array.from({ length: 3_000_000 }, (_, at) => (at * 7 + (at >> 9)) % 256));
  const store = objectStore(settings);
  await store.write('ee'.repeat(32), bytes);
  expect((await store.read('ee'.repeat(32))).equals(bytes)).toBe(true);
});

test.each(['away', 'busy'] as const)('while the store is %s nothing is lost: it is asked again', async (how) => {
  const store = objectStore(settings);
  const key = `${how}-${'12'.repeat(20)}`;
  fault = how;
  const written = store.write(key, Buffer.from('kept'));
  const known = store.has('ff'.repeat(32));
  while (refused < 4) await new Promise((resolve) => setTimeout(resolve, 20));
  fault = 'none';
  await written;
  expect(await known).toBe(false);
  expect((await store.read(key)).toString()).toBe('kept');
});

test('what is refused for good is not asked again', async () => {
  const store = objectStore({ ...settings, bucket: 'elsewhere' });
  await expect(store.write('ab'.repeat(32), Buffer.from('x'))).rejects.toMatchObject({ name: 'NoSuchBucket' });
});

test.each(['../secrets.json', 'a/b', '', 'x\0'])('takes no path for a key: %j', async (key) => {
  await expect(objectStore(settings).read(key)).rejects.toThrow('not a photo key');
  await expect(objectStore(settings).write(key, Buffer.from('x'))).rejects.toThrow('not a photo key');
});

test('what is made of photos is kept near, and bounded; the photo itself is not', async () => {
  const near = join(folder, 'near');
  const store = cached(objectStore(settings), near, 1_000);
  const made = `${'77'.repeat(32)}-view.webp`;
  await store.write('77'.repeat(32), Buffer.alloc(400, 1));
  await store.write(made, Buffer.alloc(400, 2));
  fault = 'away';
  asked = 0;
  expect(await store.has(made)).toBe(true);
  expect((await store.read(made)).equals(Buffer.alloc(400, 2))).toBe(true);
  expect(asked).toBe(0);
  fault = 'none';
  // What was lost near is fetched again.
  rmSync(near, { recursive: true, force: true });
  expect((await store.read(made)).length).toBe(400);
  expect((await store.read('77'.repeat(32))).length).toBe(400);
  await store.remove(made);
  expect(await store.has(made)).toBe(false);
});
