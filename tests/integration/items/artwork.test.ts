import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { closeDatabase } from '../../../src/db/client';
import { readDetails, withDetails } from '../../../src/files/xmp';
import { png } from '../../../src/files/xmp/containers';
import type { ArtworkView } from '../../../src/services/artwork/find-artworks';
import type { ReceivedArtwork } from '../../../src/services/artwork/receive-artwork';
import { sheet } from '../../support/items';
import { accountOf, call, stack } from '../../support/stack';

afterAll(closeDatabase);

let count = 0;
/** A drawing on nothing: a ring of one colour, each another file. */
async function ring(colour: string, side = 600): Promise<Buffer> {
  const stroke = `<circle cx="${side / 2}" cy="${side / 2}" r="${side / 3}" fill="none" stroke="${colour}" stroke-width="40"/>`;
  const dot = `<circle cx="${side / 2}" cy="${side / 2}" r="${10 + ++count}" fill="${colour}"/>`;
  return sharp(
    Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="${side}" height="${side}">${stroke}${dot}</svg>`),
  )
    .png()
    .withExif({ IFD0: { Software: `ring ${process.pid} ${Date.now()} ${count}` } })
    .toBuffer();
}

async function bring(
  bytes: Buffer,
  name: string,
): Promise<{ status: number; body: ReceivedArtwork & { title?: string } }> {
  const answer = await fetch(`${stack.base}/api/v1/artworks`, {
    method: 'POST',
    headers: {
      authorization: `Bearer ${stack.token}`,
      'content-type': 'image/png',
      'x-file-name': encodeURIComponent(name),
    },
    body: new Uint8Array(bytes),
  });
  return { status: answer.status, body: (await answer.json()) as ReceivedArtwork & { title?: string } };
}

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
  const dark = withDetails(await ring('#101010'), said);
  if (!dark) throw new Error('nothing was written');
  const { status, body } = await bring(dark, 'ring_of-night.png');
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
  const twice = await Promise.all([bring(dark, 'other.png'), bring(dark, 'third.png')]);
  expect(twice.map((one) => one.body)).toEqual([
    { itemId: body.itemId, known: true, twin: null, notes: [] },
    { itemId: body.itemId, known: true, twin: null, notes: [] },
  ]);
});

test('corrected by hand it stays so, travels in the file, and another program reads it', async () => {
  const { body } = await bring(await ring('#fafafa'), 'white ring.png');
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
  expect((await bring(empty, 'empty.png')).body.title).toContain('nothing in it is visible');
  expect((await bring(Buffer.from('words'), 'words.png')).status).toBe(422);
  const good = withDetails(await ring('#884422'), said);
  const packet = good && png.read(good)?.replace('</rdf:RDF>', '<rdf:RDF>');
  if (!packet) throw new Error('nothing was written');
  const broken = png.write(good, packet);
  const { body } = await bring(broken, 'broken.png');
  expect(body.notes.join()).toContain('cannot be read');
  expect((await seen(body.itemId)).title).toBe('broken');
  expect((await call<{ title: string }>('GET', `/artworks/${body.itemId}/file`)).body.title).toContain('cannot hold');
});
