import { type Ground, type Raster, type Rgb, readColour, readsWell, scoreGround, tonesOf } from '.';

const colour = (text: string): Rgb => readColour(text) ?? [0, 0, 0];
const grounds: Ground[] = [
  { name: 'White', colour: colour('#ffffff') },
  { name: 'Natural', colour: colour('#efe6d2') },
  { name: 'Black', colour: colour('#16161a') },
  { name: 'Sea blue', colour: colour('#2f5f7a') },
];

/** Inks, and the grounds on which a person who looks at them says that they read: white, natural, black, sea blue. */
const inks: [ink: string, reads: string][] = [
  ['#000000', 'wns'],
  ['#14213d', 'wn'],
  ['#5a1020', 'wn'],
  ['#0b3d20', 'wn'],
  ['#ffffff', 'bs'],
  ['#fff4d6', 'bs'],
  ['#ffd500', 'bs'],
  ['#f7c6d0', 'bs'],
  ['#c01818', 'wnb'],
  ['#808080', 'wnb'],
  ['#9ad0f0', 'bs'],
  ['#6a3fa0', 'wn'],
];
const letters = ['w', 'n', 'b', 's'];
const side = 96;

type Draw = (x: number, y: number, ink: Rgb) => Rgb | null;
const distance = (x: number, y: number) => Math.hypot(x - side / 2, y - side / 2);
const styles: Draw[] = [
  // A disc, a ring, bars as of words, a hatched field, and a disc of a middling grey with a thick outline.
  (x, y, ink) => (distance(x, y) < 36 ? ink : null),
  (x, y, ink) => (distance(x, y) < 38 && distance(x, y) > 30 ? ink : null),
  (x, y, ink) => (y % 12 < 4 && x > 14 && x < 80 ? ink : null),
  (x, y, ink) => ((x + y) % 9 < 3 && distance(x, y) < 40 ? ink : null),
  (x, y, ink) => (distance(x, y) > 40 ? null : distance(x, y) > 28 ? ink : [128, 128, 128]),
];

function drawn(draw: Draw, ink: Rgb): Raster {
  const pixels = new Uint8Array(side * side * 4);
  for (let y = 0; y < side; y++)
    for (let x = 0; x < side; x++) {
      const at = draw(x, y, ink);
      if (at) pixels.set([...at, 255], (y * side + x) * 4);
    }
  return { pixels, width: side, height: side };
}

test('sixty made artworks: the grounds on which they read are those that a person names, in 95 of 100', () => {
  const wrong: string[] = [];
  let all = 0;
  for (const [ink, reads] of inks)
    for (const [style, draw] of styles.entries()) {
      const tones = tonesOf(drawn(draw, colour(ink)));
      for (const [at, ground] of grounds.entries()) {
        all++;
        const { score } = scoreGround(tones, ground);
        const isSaid = score >= readsWell;
        if (isSaid !== reads.includes(letters[at] ?? '-')) wrong.push(`${ink} ${style} on ${ground.name}: ${score}`);
      }
    }
  expect(all).toBe(240);
  if (wrong.length > all * 0.05) throw new Error(wrong.join('\n'));
});
