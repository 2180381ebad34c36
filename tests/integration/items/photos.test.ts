import { jpeg, readyItem, sheet, upload } from '../../support/items';
import { call } from '../../support/stack';

const tint = (index: number) => `#${(0x203040 + index * 0x110d07).toString(16).slice(0, 6)}`;
const hashes = async (id: number) => (await sheet(id)).item.photos.map((photo) => photo.hash);
const order = (id: number, photos: string[]) =>
  call<{ photos: string[]; field: string }>('PUT', `/items/${id}/photos`, { photos });

async function withPhotos(count: number): Promise<{ id: number; all: string[] }> {
  const { id } = await readyItem();
  for (let index = 1; index < count; index++) await upload(id, await jpeg(700 + index, tint(index)));
  return { id, all: await hashes(id) };
}

test('photos uploaded at the same moment all arrive, each in a place of its own', async () => {
  const { id } = await readyItem();
  const pictures = await Promise.all(Array.from({ length: 8 }, (_, index) => jpeg(640 + index, tint(index + 20))));
  const done = await Promise.all(pictures.map((bytes) => upload(id, bytes)));
  expect(done.map((one) => one.status)).toEqual(Array(8).fill(201));
  expect(new Set(await hashes(id)).size).toBe(9);
});

test('they are put in order, one is shown twice, one is removed and comes back', async () => {
  const { id, all } = await withPhotos(3);
  const [one = '', two = '', three = ''] = all;
  expect((await order(id, [three, one, two, three])).body.photos).toEqual([three, one, two, three]);
  expect((await order(id, [three])).body.photos).toEqual([three]);
  // What was on the item once may come back: it is still there.
  expect((await order(id, [one, three])).body.photos).toEqual([one, three]);
  expect((await order(id, [])).body.photos).toEqual([]);
});

test('a photo of another item is refused, and nothing has changed', async () => {
  const { id, all } = await withPhotos(2);
  const other = await withPhotos(2);
  const stranger = other.all.find((hash) => !all.includes(hash)) ?? '';
  expect(await order(id, [...all, stranger])).toMatchObject({ status: 422, body: { field: 'photos.2' } });
  expect(await hashes(id)).toEqual(all);
});

test('a flaw has its words until they are taken away', async () => {
  const { id, all } = await withPhotos(2);
  const say = (words: string, hash = all[1]) => call('PUT', `/items/${id}/photos/flaw`, { hash, words });
  const flaws = async () =>
    (await call<{ item: { photos: { flaw?: string }[] } }>('GET', `/items/${id}`)).body.item.photos.map(
      (one) => one.flaw,
    );
  await say('  A scratch on the base  ');
  expect(await flaws()).toEqual([undefined, 'A scratch on the base']);
  await order(id, [...all].reverse());
  expect(await flaws()).toEqual(['A scratch on the base', undefined]);
  await say('');
  expect(await flaws()).toEqual([undefined, undefined]);
  expect((await say('x', 'f'.repeat(64))).status).toBe(404);
});

describe('a picture made from another', () => {
  const plain = { turn: 0, crop: null, brightness: 0, contrast: 0, warmth: 0, tint: 0, backdrop: null, layers: [] };
  const make = (id: number, hash: string, place: number, recipe: unknown, twice = false) =>
    call<{ hash: string; photos: string[] }>('POST', `/items/${id}/photos/made`, { hash, place, recipe, twice });

  test('stands in its place with its flaw; the way back to the original stays known', async () => {
    const { id, all } = await withPhotos(2);
    const [first = '', second = ''] = all;
    await call('PUT', `/items/${id}/photos/flaw`, { hash: first, words: 'A dent' });
    const { status, body } = await make(id, first, 0, { ...plain, turn: 90 }, true);
    expect(status).toBe(201);
    expect(body.photos).toEqual([body.hash, second, first]);
    const photo = (
      await call<{ item: { photos: { width: number; height: number; flaw?: string }[] } }>('GET', `/items/${id}`)
    ).body.item.photos[0];
    expect(photo).toMatchObject({ flaw: 'A dent' });
    const recipe = await call<{ original: string; recipe: unknown }>('GET', `/photos/recipe?hash=${body.hash}`);
    expect(recipe.body).toMatchObject({ original: first, recipe: { turn: 90 } });
    expect((await make(id, body.hash, 0, plain)).body.photos).toEqual([first, second, first]);
    expect((await order(id, all)).body.photos).toEqual(all);
  });

  test.each([
    ['another photo stands there', 1, plain],
    ['there is no such place', 9, plain],
  ])('where %s nothing is changed', async (_, place, recipe) => {
    const { id, all } = await withPhotos(2);
    expect((await make(id, all[0] ?? '', place, recipe)).status).toBe(409);
    expect(await hashes(id)).toEqual(all);
  });
});
