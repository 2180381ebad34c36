import fc from 'fast-check';
import { storable } from './storable';

test('characters that nobody sees are not stored, however deep', () => {
  expect(storable('Noc\u0000tal\u202E 50 mm\u0007')).toBe('Noctal 50 mm');
  expect(storable({ mount: 'M\u00042', 'a\u0000': ['b\u009F', 3, null, true] })).toEqual({
    mount: 'M2',
    a: ['b', 3, null, true],
  });
  expect(storable('half \ud83d a picture')).toBe('half  a picture');
});

test('what is written in any script stands as it is: breaks, tabs, pictures, marks of direction', () => {
  for (const text of ['one\ntwo\tthree\r\n', 'עברית \u200Fשלום', '📷 👨‍👩‍👧‍👦 é', '\u2067isolated\u2069'])
    expect(storable(text)).toBe(text);
  const list = ['a', 'b'];
  expect(storable(list)).toBe(list);
});

test('once is as good as twice, and what is left is well formed', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary' }), (text) => {
      const kept = storable(text);
      return storable(kept) === kept && encodeURIComponent(kept).length >= 0;
    }),
  );
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 0xffff }), { maxLength: 12 }), (units) => {
      const kept = storable(String.fromCharCode(...units));
      return storable(kept) === kept && decodeURIComponent(encodeURIComponent(kept)) === kept;
    }),
  );
});
