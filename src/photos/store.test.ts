import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';

const folder = mkdtempSync(join(tmpdir(), 'photos-'));
process.env.NETTING_DATA = folder;
afterAll(() => rmSync(folder, { recursive: true, force: true }));

// Loaded after the folder is known: the configuration is read once a process.
const { photoStore } = require('./store') as typeof import('./store');
const { derivatives, derivativeKey, readDerivative, removeDerivatives } =
  require('./derivatives') as typeof import('./derivatives');
const { storePhoto } = require('./intake') as typeof import('./intake');

const picture = (width: number, height: number, tint = '#446688') =>
  sharp({ create: { width, height, channels: 3, background: tint } })
    .jpeg()
    .toBuffer();
const filesIn = (path: string) =>
  readdirSync(path, { recursive: true, withFileTypes: true }).filter((one) => one.isFile());

describe('the store', () => {
  test('gives back what was written, also over something older, and nothing after it was removed', async () => {
    const key = `${'ab'.repeat(32)}-view.webp`;
    expect(await photoStore.has(key)).toBe(false);
    await photoStore.write(key, Buffer.from('one'));
    await photoStore.write(key, Buffer.from('two'));
    expect((await photoStore.read(key)).toString()).toBe('two');
    await photoStore.remove(key);
    expect(await photoStore.has(key)).toBe(false);
    await photoStore.remove(key);
  });

  test('many writers of one key leave one whole file and no crumbs', async () => {
    const key = 'cd'.repeat(32);
    const bodies = Array.from({ length: 12 }, (_, index) => Buffer.alloc(50_000, index));
    await Promise.all(bodies.map((body) => photoStore.write(key, body)));
    const kept = await photoStore.read(key);
    expect(bodies.some((body) => body.equals(kept))).toBe(true);
    expect(filesIn(join(folder, 'photos', 'cd'))).toHaveLength(1);
  });

  test.each(['../secrets.json', '/etc/passwd', 'a/b', '', 'x'.repeat(3).concat('\0')])(
    'never leads out of its folder: %j',
    async (key) => {
      await expect(photoStore.read(key)).rejects.toThrow();
      await expect(photoStore.write(key, Buffer.from('x'))).rejects.toThrow();
    },
  );
});

describe('a photo that comes in', () => {
  test('is kept by its content, with every size made of it', async () => {
    const bytes = await picture(900, 600);
    const { hash, ...rest } = await storePhoto(bytes, 'one.jpg');
    expect(rest).toEqual({ mime: 'image/jpeg', width: 900, height: 600, bytes: bytes.length });
    expect((await photoStore.read(hash)).equals(bytes)).toBe(true);
    for (const name of Object.keys(derivatives) as (keyof typeof derivatives)[])
      expect(await photoStore.has(derivativeKey(hash, name))).toBe(true);
    expect((await storePhoto(bytes, 'the same under another name.jpg')).hash).toBe(hash);
  });

  test('is measured as it is seen, not as it lies in the file', async () => {
    const turned = await sharp(await picture(900, 600))
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    expect(await storePhoto(turned, 'turned.jpg')).toMatchObject({ width: 600, height: 900 });
  });

  test('a size that got lost is made again', async () => {
    const { hash } = await storePhoto(await picture(700, 700, '#aa5533'), 'lost.jpg');
    await photoStore.remove(derivativeKey(hash, 'thumb'));
    const { width, height } = await sharp(await readDerivative(hash, 'thumb')).metadata();
    expect([width, height]).toEqual([96, 96]);
    expect(await photoStore.has(derivativeKey(hash, 'thumb'))).toBe(true);
  });

  test('sizes never grow beyond the picture, but for the square of a row', async () => {
    const { hash } = await storePhoto(await picture(300, 200, '#225511'), 'small.jpg');
    const sizes = await Promise.all(
      (['view', 'market', 'thumb'] as const).map(async (name) => sharp(await readDerivative(hash, name)).metadata()),
    );
    expect(sizes.map(({ width, height }) => [width, height])).toEqual([
      [300, 200],
      [300, 200],
      [96, 96],
    ]);
  });

  test.each([
    ['a text', Buffer.from('not a picture'), 'photo-unreadable'],
    ['nothing', Buffer.alloc(0), 'photo-unreadable'],
    ['too much', Buffer.alloc(30_000_001), 'photo-too-large'],
    ['a phone’s own format', Buffer.concat([Buffer.alloc(4), Buffer.from('ftypheic')]), 'photo-unreadable'],
  ])('%s is refused with a sentence, and nothing of it is kept', async (_, bytes, code) => {
    const before = filesIn(folder).length;
    await expect(storePhoto(bytes, 'file.jpg')).rejects.toMatchObject({ code });
    expect(filesIn(folder)).toHaveLength(before);
  });

  test('one that breaks off in the middle is refused, and leaves no sizes behind', async () => {
    const whole = await sharp({
      create: {
        width: 1200,
        height: 900,
        channels: 3,
        background: '#777',
        noise: { type: 'gaussian', mean: 128, sigma: 40 },
      },
    })
      .jpeg()
      .toBuffer();
    const before = filesIn(folder).length;
    await expect(storePhoto(whole.subarray(0, whole.length / 2), 'half.jpg')).rejects.toMatchObject({
      code: 'photo-unreadable',
    });
    expect(filesIn(folder)).toHaveLength(before);
  });

  test.each(['ENOSPC', 'EDQUOT', 'EROFS'])(
    'for which the disk has no room (%s) is refused for that, leaves nothing, and is taken later',
    async (code) => {
      const bytes = await picture(1_620, 430, '#123456');
      const before = filesIn(folder).length;
      const write = photoStore.write;
      let room = 2;
      const full = jest.spyOn(photoStore, 'write').mockImplementation(async (key, some) => {
        // The disk is full in the middle of it: some sizes were written.
        if (room-- > 0) return write(key, some);
        throw Object.assign(new Error(`${code}: no space left on device, write`), { code });
      });
      await expect(storePhoto(bytes, 'much.jpg')).rejects.toMatchObject({
        code: 'not-ready',
        message: 'There is no room left for photos on the disk',
        facts: { fix: 'Make room, and go on' },
      });
      full.mockRestore();
      expect(filesIn(folder)).toHaveLength(before);
      const { hash } = await storePhoto(bytes, 'much.jpg');
      expect(await photoStore.has(hash)).toBe(true);
      await removeDerivatives(hash);
      await photoStore.remove(hash);
    },
  );

  test('of 120 megapixels is taken, of more it is not, whatever its bytes are', async () => {
    const large = await picture(12_000, 10_000);
    expect(await storePhoto(large, 'large.jpg', 'later')).toMatchObject({ width: 12_000, height: 10_000 });
    await expect(storePhoto(await picture(12_100, 10_000), 'larger.jpg')).rejects.toMatchObject({
      code: 'photo-too-large',
      message: 'larger.jpg has more than 120 megapixels',
    });
  }, 60_000);
});
