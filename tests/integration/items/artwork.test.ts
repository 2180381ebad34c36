import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { closeDatabase } from '../../../src/db/client';
import { readDetails, sidecar, withDetails } from '../../../src/files/xmp';
import { png } from '../../../src/files/xmp/containers';
import type { ArtworkView } from '../../../src/services/artwork/find-artworks';
import { bringArtwork, drawing, strokes } from '../../support/artwork';
import { sheet } from '../../support/items';
import { accountOf, call, stack } from '../../support/stack';

afterAll(closeDatabase);

const seen = async (id: number): Promise<ArtworkView> => {
  const { artworks } = (await call<{ artworks: ArtworkView[] }>('GET', '/artworks?limit=100')).body;
  const found = artworks.find((one) => one.itemId === id);
  if (!found) throw new Error('the artwork is not listed');
  return found;
};
const fetched = async (id: number, of = 'picture'): Promise<Buffer> => {
  const answer = await fetch(`${stack.base}/api/v1/artworks/${id}/file?of=${of}`, {
    headers: { authorization: `Bearer ${stack.token}` },
  });
  expect(answer.status).toBe(200);
  return Buffer.from(await answer.arrayBuffer());
};

const said = {
  title: 'Ring of night',
  description: 'Drawn with a brush.\nTwice.',
  tags: ['ring', 'night'],
  audience: 'Sailors',
  grounds: [],
};

test('a picture becomes an item with what its file says, and where it reads well; it is meant for the printer', async () => {
  const dark = withDetails(await drawing('#101010'), said);
  if (!dark) throw new Error('nothing was written');
  const { status, body } = await bringArtwork(dark, 'ring_of-night.png');
  expect(status).toBe(201);
  expect(body).toMatchObject({ known: false, notes: [] });
  const { item, columns } = await sheet(body.itemId);
  expect(item).toMatchObject({ title: 'Ring of night', quantity: 99 });
  const wallfolk = await accountOf('Wallfolk');
  expect(columns.find((one) => one.accountId === wallfolk)?.state).toBe('draft');
  const view = await seen(body.itemId);
  expect(view).toMatchObject({ audience: 'Sailors', tags: ['ring', 'night'], differs: [], isBroken: false });
  expect(view.grounds).toEqual(expect.arrayContaining(['White', 'Natural']));
  expect(view.grounds).not.toContain('Black');
  expect(view.scores.find((one) => one.ground === 'Black')).toMatchObject({
    score: expect.any(Number),
    why: expect.stringContaining('Dark on dark'),
  });
  // The same file once more makes nothing new, also twice in one breath.
  const twice = await Promise.all([bringArtwork(dark, 'other.png'), bringArtwork(dark, 'third.png')]);
  expect(twice.map((one) => one.body)).toEqual([
    { itemId: body.itemId, known: true, twin: null, notes: [] },
    { itemId: body.itemId, known: true, twin: null, notes: [] },
  ]);
});

test('corrected by hand it stays so, travels in the file, and another program reads it', async () => {
  const { body } = await bringArtwork(await drawing('#fafafa'), 'white ring.png');
  const before = await seen(body.itemId);
  expect(before.title).toBe('white ring');
  expect(before.grounds).not.toContain('White');
  await call('PUT', `/artworks/${body.itemId}/grounds`, { grounds: [...before.grounds, 'White'] });
  expect((await seen(body.itemId)).grounds).toContain('White');
  const bytes = await fetched(body.itemId);
  expect(readDetails(bytes)).toMatchObject({
    broken: false,
    details: { title: 'white ring', grounds: expect.arrayContaining(['Black', 'White']) },
  });
  expect((await fetched(body.itemId, 'details')).toString()).toContain('white ring');
  const folder = mkdtempSync(join(tmpdir(), 'netting-artwork-'));
  try {
    const path = join(folder, 'picture.png');
    writeFileSync(path, bytes);
    expect(execFileSync('exiftool', ['-s3', '-XMP-dc:Title', path], { encoding: 'utf8' }).trim()).toBe('white ring');
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});

test('what cannot be taken is said: nothing visible, no picture; a broken block is kept and told', async () => {
  const empty = await sharp({
    create: { width: 40, height: 40, channels: 4, background: { r: 0, g: 0, b: 0, alpha: 0 } },
  })
    .png()
    .toBuffer();
  expect((await bringArtwork(empty, 'empty.png')).body.title).toContain('nothing in it is visible');
  expect((await bringArtwork(Buffer.from('words'), 'words.png')).status).toBe(422);
  const good = withDetails(await drawing('#884422'), said);
  const packet = good && png.read(good)?.replace('</rdf:RDF>', '<rdf:RDF>');
  if (!packet) throw new Error('nothing was written');
  const broken = png.write(good, packet);
  const { body } = await bringArtwork(broken, 'broken.png');
  expect(body.notes.join()).toContain('cannot be read');
  expect((await seen(body.itemId)).title).toBe('broken');
  expect((await call<{ title: string }>('GET', `/artworks/${body.itemId}/file`)).body.title).toContain('cannot hold');
});

test('what another program writes into the file is shown, and taken over only when a person says so', async () => {
  const picture = await drawing('#2d5a3c', 900);
  const { body } = await bringArtwork(withDetails(picture, said) ?? picture, 'shown.png');
  const other = withDetails(picture, { ...said, title: 'Ring at noon', tags: ['noon'] });
  if (!other) throw new Error('nothing was written');
  const again = await bringArtwork(other, 'shown.png');
  expect(again.body).toMatchObject({ itemId: body.itemId, known: true });
  const view = await seen(body.itemId);
  expect(view.title).toBe('Ring of night');
  expect(view.differs.map((one) => [one.field, one.theirs])).toEqual([
    ['title', 'Ring at noon'],
    ['tags', 'noon'],
  ]);
  await call('PUT', `/artworks/${body.itemId}/details`, { take: ['title'], leave: ['tags'] });
  const after = await seen(body.itemId);
  expect(after).toMatchObject({ title: 'Ring at noon', tags: ['ring', 'night'], differs: [] });
});

test('a file of words beside the picture is heard by its name; a stranger and a broken one are told', async () => {
  const name = `beside ${Date.now()}`;
  const { body } = await bringArtwork(await drawing('#16324a', 900), `${name}.png`);
  const hear = (words: string, file: string) =>
    fetch(`${stack.base}/api/v1/artworks/details`, {
      method: 'POST',
      headers: { authorization: `Bearer ${stack.token}`, 'x-file-name': encodeURIComponent(file) },
      body: words,
    });
  const words = sidecar({ ...said, title: 'From beside' });
  expect((await hear(words, `${name}.xmp`)).status).toBe(201);
  expect((await seen(body.itemId)).differs.map((one) => one.theirs)).toContain('From beside');
  expect((await hear(words, 'nobody knows this.xmp')).status).toBe(404);
  expect((await hear('<x:xmpmeta', `${name}.xmp`)).status).toBe(422);
});

test('TIFF and drawings of lines are taken; a script in one does nothing', async () => {
  const tiff = await sharp(await drawing('#7c2f2f', 900))
    .tiff({ compression: 'lzw' })
    .toBuffer();
  const first = await bringArtwork(tiff, 'picture.tif');
  expect(first.status).toBe(201);
  expect(await seen(first.body.itemId)).toMatchObject({ width: 900, height: 900 });
  const lines = strokes('#2f5f7a', 500).toString().replace('</svg>', '<script>alert(1)</script></svg>');
  const second = await bringArtwork(Buffer.from(lines), 'lines.svg');
  expect(second.status).toBe(201);
  const view = await seen(second.body.itemId);
  expect(Math.max(view.width, view.height)).toBe(6_000);
  expect((await sharp(await fetched(second.body.itemId), { limitInputPixels: false }).metadata()).format).toBe('png');
  expect((await bringArtwork(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><rect>'), 'half.svg')).status).toBe(
    422,
  );
});

test('five hundred tags, CMYK without a profile, sixteen bits, two hundred megapixels: each is told or taken', async () => {
  const picture = await drawing('#54774f', 900);
  const tags = Array.from({ length: 500 }, (_, at) => `tag ${at}`);
  const many = await bringArtwork(withDetails(picture, { ...said, tags }) ?? picture, 'tags.png');
  expect(many.body.notes.join()).toContain('the first 60 of its 500 tags');
  expect((await seen(many.body.itemId)).tags).toHaveLength(60);
  const cmyk = await sharp(await drawing('#a8322a', 900))
    .flatten({ background: '#ffffff' })
    .toColourspace('cmyk')
    .jpeg()
    .toBuffer();
  const bare = await bringArtwork(cmyk, 'press.jpg');
  expect(bare.status).toBe(422);
  expect(bare.body.title).toContain('CMYK without a colour profile');
  const deep = await sharp(await drawing('#d8663a', 900))
    .toColourspace('rgb16')
    .png()
    .toBuffer();
  expect((await sharp(deep).metadata()).depth).toBe('ushort');
  expect((await bringArtwork(deep, 'deep.png')).status).toBe(201);
  const huge = await sharp({
    create: { width: 20_000, height: 10_000, channels: 3, background: '#404040' },
    limitInputPixels: false,
  })
    .png({ compressionLevel: 9 })
    .toBuffer();
  expect((await bringArtwork(huge, 'huge.png')).body.title).toContain('megapixels');
});

test('artwork that looks like another one is another one where a person says so', async () => {
  const lines = strokes('#8c2f2f', 800);
  const first = await bringArtwork(await sharp(lines).png().toBuffer(), 'small.png');
  const second = await bringArtwork(await sharp(lines, { density: 144 }).png().toBuffer(), 'double.png');
  expect(second.body.twin).toBe(first.body.itemId);
  await call('POST', `/artworks/${second.body.itemId}/twin`, { how: 'keep' });
  expect((await seen(second.body.itemId)).twin).toBeNull();
  expect((await seen(first.body.itemId)).width).toBe(800);
});

test('a deleted one is not made anew under the hand: it is brought back', async () => {
  const picture = await drawing('#c9a227', 900);
  const { body } = await bringArtwork(picture, 'gone.png');
  await call('POST', '/edits', {
    selection: { kind: 'items', ids: [body.itemId] },
    steps: [{ field: 'standing', do: { verb: 'set', value: 'deleted' } }],
    send: false,
  });
  const again = await bringArtwork(picture, 'gone.png');
  expect(again.status).toBe(409);
  expect(again.body.fix).toContain('Bring it back');
});
