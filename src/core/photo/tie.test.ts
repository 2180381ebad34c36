import fc from 'fast-check';
import { asTaken, type DroppedPhoto, keyOf, namesIn, readNamePattern, tieByBarcode, tieByName, tieByTime } from './tie';

const photo = (id: number, path: string, part: Partial<DroppedPhoto> = {}): DroppedPhoto => ({
  id,
  path,
  takenAt: null,
  codes: [],
  ...part,
});
const keys = new Map(
  [
    ['C4-25110', 1],
    ['C4-2511', 2],
    ['4006381333931', 3],
    ['CAM 7', 4],
  ].map(([key, item]) => [keyOf(String(key)), Number(item)]),
);

test.each([
  ['C4-25110.jpg', 1],
  ['C4-25110_3.jpg', 1],
  ['C4-25110 back.jpg', 1],
  ['c4-25110(2).JPG', 1],
  ['C4-25110b.jpg', 1],
  ['C4-2511-1.jpg', 2],
  ['today/C4-25110/IMG_0001.jpg', 1],
  ['04006381333931-2.png', 3],
  ['front 4006381333931.webp', 3],
  ['CAM 7_2.jpg', 4],
  ['C4-251103.jpg', null],
  ['IMG_0001.jpg', null],
])('%s belongs to item %s', (path, item) => {
  const [tie] = tieByName([photo(1, path)], keys);
  expect(tie?.item).toBe(item);
  expect(tie?.said === null).toBe(item !== null);
});

test('those of one item stand by their numbers, without one first', () => {
  const photos = ['C4-25110_10.jpg', 'C4-25110_2.jpg', 'C4-25110.jpg', 'C4-25110_1.jpg'].map((path, id) =>
    photo(id, path),
  );
  const ties = tieByName(photos, keys);
  expect([...ties].sort((a, b) => a.place - b.place).map((one) => one.id)).toEqual([2, 3, 1, 0]);
});

test('a pattern of one’s own is tried, and one that cannot be read says why', () => {
  const read = readNamePattern('IMG* {sku} ({n})');
  if ('problem' in read) throw new Error(read.problem);
  expect(read.match('x/IMG_0031 C4-25110 (3).jpg')).toEqual({ key: 'c4-25110', rest: '3' });
  expect(read.match('C4-25110.jpg')).toBeNull();
  expect(readNamePattern('IMG_*')).toEqual({ problem: 'Write {sku} where the stock number or the barcode stands' });
  expect(readNamePattern('{sku} {name}')).toEqual({ problem: 'Only {sku}, {n} and * stand for something' });
  expect(tieByName([photo(1, 'IMG7 C4-25110 (3).jpg')], keys, 'IMG* {sku} ({n})')[0]?.item).toBe(1);
});

test('any pattern and any name are read in no time', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 60 }), fc.string({ maxLength: 200 }), (pattern, path) => {
      const read = readNamePattern(`{sku}${pattern}`);
      if ('match' in read) read.match(path);
      expect(namesIn(path).length).toBeLessThan(500);
    }),
  );
  const read = readNamePattern(`${'*a'.repeat(10)}{sku}*{n}`);
  if ('match' in read) expect(read.match(`${'a'.repeat(60)}!`)).toBeNull();
});

test('everything until the next barcode belongs to it; an unknown one ends what was before', () => {
  const codes = [['C4-25110'], [], ['C4-25110'], ['4006381333931'], [], ['999'], []];
  const ties = tieByBarcode(
    codes.map((seen, at) => photo(at, `IMG_${at}.jpg`, { takenAt: at * 1_000, codes: seen })),
    keys,
  );
  expect(ties.map(({ item, as }) => `${as} ${item}`)).toEqual([
    'sheet 1',
    'photo 1',
    'photo 1',
    'sheet 3',
    'photo 3',
    'photo null',
    'photo null',
  ]);
  expect(ties[6]?.said).toBe('999 is no item’s barcode or stock number');
  expect(tieByBarcode([photo(1, 'a.jpg')], keys)[0]?.said).toBe('No barcode was seen before it');
});

test('a pause begins the next item; what does not say when it was taken is left', () => {
  const at = (seconds: number[]) => seconds.map((one, id) => photo(id, `IMG_${id}.jpg`, { takenAt: one * 1_000 }));
  const ties = tieByTime([...at([0, 20, 200, 210, 600]), photo(9, 'scan.png')], [7, 8], 60);
  expect(ties.map((one) => one.item)).toEqual([7, 7, 8, 8, null, null]);
  expect(ties[5]?.said).toBe('It does not say when it was taken');
});

test('whatever is dropped, each picture is tied once or left, whichever way', () => {
  const any = fc.uniqueArray(
    fc.record({
      id: fc.nat(),
      path: fc.string({ minLength: 1, maxLength: 20 }),
      takenAt: fc.option(fc.nat(1e6)),
      codes: fc.array(fc.constantFrom('C4-25110', '1', '4006381333931'), { maxLength: 2 }),
    }),
    { selector: (one) => one.id, maxLength: 12 },
  );
  fc.assert(
    fc.property(any, (photos) => {
      const ids = photos.map((one) => one.id).sort();
      for (const ties of [tieByName(photos, keys), tieByBarcode(photos, keys), tieByTime(photos, [1, 2], 5)])
        expect(ties.map((one) => one.id).sort()).toEqual(ids);
      expect(asTaken(photos)).toHaveLength(photos.length);
    }),
  );
});
