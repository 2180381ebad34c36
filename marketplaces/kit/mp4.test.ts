import { mp4Seconds } from './mp4';

const box = (name: string, ...contents: Buffer[]): Buffer => {
  const head = Buffer.alloc(8);
  head.writeUInt32BE(8 + contents.reduce((sum, one) => sum + one.length, 0));
  head.write(name, 4, 'latin1');
  return Buffer.concat([head, ...contents]);
};
const header = (version: 0 | 1, scale: number, duration: number): Buffer => {
  const bytes = Buffer.alloc(version === 1 ? 112 : 100);
  bytes[0] = version;
  bytes.writeUInt32BE(scale, version === 1 ? 20 : 12);
  if (version === 1) bytes.writeBigUInt64BE(BigInt(duration), 24);
  else bytes.writeUInt32BE(duration, 16);
  return box('mvhd', bytes);
};
const film = (...inside: Buffer[]) =>
  Buffer.concat([box('ftyp', Buffer.from('isom0000')), box('free', Buffer.alloc(20)), box('moov', ...inside)]);

test('an MP4 lasts as long as its movie header says, short or long form', () => {
  expect(mp4Seconds(film(header(0, 600, 9_000)))).toBe(15);
  expect(mp4Seconds(film(box('udta'), header(1, 1_000, 12_500)))).toBe(12.5);
});

test('what is none, or is cut off, lasts no time that can be said', () => {
  expect(mp4Seconds(Buffer.from('no film at all'))).toBeNull();
  expect(mp4Seconds(film())).toBeNull();
  const whole = film(header(0, 600, 9_000));
  for (let length = 0; length < whole.length; length += 7) expect(mp4Seconds(whole.subarray(0, length))).toBeNull();
});
