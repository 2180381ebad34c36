import { sql } from 'drizzle-orm';
import sharp from 'sharp';
import { closeDatabase, database } from '../../../src/db/client';
import { rowsOf } from '../../../src/db/rows';
import { lookAtPhotos } from '../../../src/services/records/photos/look-at-photos';
import { photoSummaries } from '../../../src/services/records/photos/sum-up-photos';
import { jpeg, readyItem, sheet, upload } from '../../support/items';
import { call } from '../../support/stack';

afterAll(closeDatabase);

const kept = async (id: number) =>
  rowsOf<Record<string, unknown>>(await database().execute(sql`select * from photo_summary where item_id = ${id}`)).map(
    (row) => Object.values(row).map(Number),
  );
const reckoned = async (id: number) =>
  rowsOf<Record<string, unknown>>(await database().execute(photoSummaries(sql`p.item_id = ${id}`))).map((row) =>
    Object.values(row).map(Number),
  );
const photosOf = async (id: number) => (await sheet(id)).item.photos.map((photo) => photo.hash);
test('what is kept of an item’s photos together follows every change of them', async () => {
  const { id } = await readyItem();
  const noise = { type: 'gaussian' as const, mean: 120, sigma: 50 };
  const sharpOne = await sharp({ create: { width: 700, height: 900, channels: 3, background: '#888', noise } })
    .jpeg({ quality: 92 })
    .toBuffer();
  const dark = await sharp({ create: { width: 800, height: 610, channels: 3, background: '#141414' } })
    .jpeg()
    .toBuffer();
  const agrees = async () => expect(await kept(id)).toEqual(await reckoned(id));
  await agrees();
  await upload(id, sharpOne);
  await upload(id, dark);
  await upload(id, await jpeg(640, '#998877'));
  await lookAtPhotos(database(), await photosOf(id));
  await agrees();
  const [first = '', second = '', third = '', fourth = ''] = await photosOf(id);
  // The smallest decides, whichever side it is; one of them is dark.
  expect((await kept(id))[0]?.slice(0, 3)).toEqual([id, 640, 480]);
  expect((await kept(id))[0]?.[5]).toBe(1);
  await call('PUT', `/items/${id}/photos`, { photos: [second, first] });
  await agrees();
  expect((await kept(id))[0]?.slice(1, 4)).toEqual([900, 675, 700 / 900]);
  expect((await kept(id))[0]?.[5]).toBe(0);
  await call('POST', '/edits', {
    selection: { kind: 'items', ids: [id] },
    steps: [{ field: 'photos', do: { verb: 'photo-crop', to: 'square', fit: 'close', which: 'all' } }],
    send: false,
  });
  await agrees();
  await call('PUT', `/items/${id}/photos`, { photos: [third, fourth, third] });
  await agrees();
  await call('PUT', `/items/${id}/photos`, { photos: [] });
  expect(await kept(id)).toEqual([]);
  await agrees();
});
