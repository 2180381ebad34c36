import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import sharp from 'sharp';
import type { ArtworkDetails } from '../../core/artwork';
import { readDetails, sidecar, withDetails } from '.';
import { readPacket, writePacket } from './packet';

const details: ArtworkDetails = {
  title: 'Harbour & “quay” <2>',
  description: 'Boats at night.\nTwo lines.',
  tags: ['sea', 'boat, small', 'Köln'],
  audience: 'Children',
  grounds: ['White', 'Sea blue'],
};
const picture = () =>
  sharp({ create: { width: 60, height: 40, channels: 4, background: { r: 200, g: 30, b: 90, alpha: 0.5 } } });
const files = async (): Promise<[string, Buffer][]> => [
  ['png', await picture().png().toBuffer()],
  ['jpg', await picture().flatten().jpeg().toBuffer()],
  ['tif', await picture().tiff().toBuffer()],
];
const pixels = (bytes: Buffer) => sharp(bytes).raw().toBuffer();

test('details written into a picture are read back equal, and not one pixel changes', async () => {
  for (const [kind, bytes] of await files()) {
    expect(readDetails(bytes)).toMatchObject({ broken: false, details: { title: '' } });
    const told = withDetails(bytes, details);
    if (!told) throw new Error(`${kind} holds nothing`);
    expect(readDetails(told)).toEqual({ details, broken: false });
    expect((await pixels(told)).equals(await pixels(bytes))).toBe(true);
    // Written once more, it says the new, and only once.
    const again = withDetails(told, { ...details, title: 'Other', tags: [] });
    expect(again && readDetails(again).details).toEqual({ ...details, title: 'Other', tags: [] });
    expect(again?.toString('latin1').split('Harbour').length).toBe(kind === 'tif' ? 2 : 1);
    // A TIFF is written on at its end; the others come out the same.
    if (kind !== 'tif') expect(withDetails(told, details)?.equals(told)).toBe(true);
  }
  expect(withDetails(Buffer.from('<svg/>'), details)).toBeNull();
  expect(readPacket(sidecar(details))).toEqual(details);
});

test('any words survive', () => {
  const text = fc.string({ unit: 'grapheme', maxLength: 40 }).map((one) =>
    one
      .replace(/[\p{C}\p{Zl}\p{Zp}\ufffe\uffff]/gu, '')
      .replace(/\s+/g, ' ')
      .trim(),
  );
  const list = fc.array(
    text.filter((one) => one !== ''),
    { maxLength: 500 },
  );
  fc.assert(
    fc.property(fc.record({ title: text, description: text, tags: list, audience: text, grounds: list }), (one) => {
      expect(readPacket(writePacket(one, null))).toEqual(one);
    }),
    { numRuns: 60 },
  );
});

const foreign = `<?xpacket begin="\ufeff" id="W5M0MpCehiHzreSzNTczkc9d"?>
<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">
<rdf:Description rdf:about="" xmlns:dublin="http://purl.org/dc/elements/1.1/" xmlns:photo="urn:other:1.0" photo:rating="4">
<dublin:title><rdf:Alt><rdf:li xml:lang="de">Hafen</rdf:li><rdf:li xml:lang="x-default">Old title</rdf:li></rdf:Alt></dublin:title>
<photo:history><rdf:Seq><rdf:li>drawn &amp; scanned</rdf:li></rdf:Seq></photo:history>
<dublin:creator><rdf:Seq><rdf:li>Ada Brask</rdf:li></rdf:Seq></dublin:creator>
</rdf:Description></rdf:RDF></x:xmpmeta><?xpacket end="w"?>`;

test('what another program wrote is read under its own prefixes, and survives our writing', () => {
  expect(readPacket(foreign)).toMatchObject({ title: 'Old title', tags: [] });
  const now = writePacket(details, foreign);
  expect(readPacket(now)).toEqual(details);
  expect(now).toContain('photo:rating="4"');
  expect(now).toContain('drawn &amp; scanned');
  expect(now).toContain('Ada Brask');
  expect(now).not.toContain('Old title');
});

test('a block that cannot be read is told, and not written over', async () => {
  const [, bytes] = (await files())[0] ?? [];
  if (!bytes) throw new Error('no file');
  const told = withDetails(bytes, details);
  const broken = Buffer.from(told?.toString('latin1').replace('</rdf:RDF>', '<rdf:RDF>') ?? '', 'latin1');
  expect(readDetails(broken).broken).toBe(true);
  expect(withDetails(broken, { ...details, title: 'Other' })).toBeNull();
});

test('another program reads what we write, and we what it writes', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'netting-xmp-'));
  try {
    for (const [kind, bytes] of await files()) {
      const path = join(folder, `picture.${kind}`);
      writeFileSync(path, withDetails(bytes, details) ?? bytes);
      const said = JSON.parse(
        execFileSync('exiftool', ['-j', '-validate', '-warning', '-XMP-dc:all', path], { encoding: 'utf8' }),
      )[0] as Record<string, unknown>;
      expect(said).toMatchObject({ Title: details.title, Description: details.description, Subject: details.tags });
      execFileSync('exiftool', ['-overwrite_original', '-XMP-dc:Title=By another', '-XMP-dc:Subject=moon', path]);
      const { readFileSync } = await import('node:fs');
      expect(readDetails(readFileSync(path))).toMatchObject({
        broken: false,
        details: { title: 'By another', tags: ['moon'], audience: 'Children', grounds: details.grounds },
      });
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});
