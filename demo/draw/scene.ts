/** Numbers that look random and are the same each time: a small linear congruential generator (Park–Miller). */
export function seeded(seed: number): () => number {
  let state = (seed % 2147483646) + 1;
  return () => {
    state = (state * 48271) % 2147483647;
    return state / 2147483647;
  };
}

export type View = 'front' | 'angle' | 'detail' | 'flaw' | 'back' | 'box';
export type Drawing = { defs: string; body: string; width: number; height: number };

const backdrops = [
  ['#efe9df', '#d9cfbf', '#b9ab95'],
  ['#e7ebee', '#d0d8de', '#a9b4bd'],
  ['#f2eee9', '#e0d8cf', '#c1b3a4'],
  ['#dfe4dc', '#c9d1c5', '#a3ae9d'],
] as const;

const crops: Record<View, string> = {
  front: '130 155 940 705',
  angle: '170 185 880 660',
  back: '130 155 940 705',
  detail: '380 250 480 360',
  flaw: '300 420 360 270',
  box: '150 170 900 675',
};

// Tiles that hold many grains and ridges: drawing pays for each tile that is laid, not for what is in it.
const grains = 8;
const ridges = 20;
const leather = Array.from({ length: grains * grains }, (_, index) => {
  const [x, y] = [(index % grains) * 9, Math.floor(index / grains) * 9];
  return `<circle cx="${x + 2.5}" cy="${y + 2.5}" r="1.6" fill="#fff" fill-opacity="0.08"/><circle cx="${x + 7}" cy="${y + 7}" r="1.8" fill="#000" fill-opacity="0.22"/>`;
}).join('');
const knurl = Array.from(
  { length: ridges },
  (_, index) =>
    `<rect x="${index * 6}" width="3" height="60" fill="#000" fill-opacity="0.35"/><rect x="${index * 6 + 3}" width="1" height="60" fill="#fff" fill-opacity="0.3"/>`,
).join('');

/** A picture of a thing on a table before a sweep of paper, lit from the upper left, with a soft shadow. */
export function scene(drawing: Drawing, view: View, seed: number, flaw = ''): string {
  const random = seeded(seed);
  const [light, middle, dark] = backdrops[Math.floor(random() * backdrops.length)] ?? backdrops[0];
  const turn =
    view === 'angle'
      ? `rotate(${-6 + random() * 4}) skewX(${-7 - random() * 4}) scale(0.94 1)`
      : view === 'back'
        ? 'scale(-1 1)'
        : '';
  const { width, height } = drawing;
  const bottom = 700;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="900" height="675" viewBox="${crops[view]}">
<defs>
<linearGradient id="sweep" x1="0" y1="0" x2="0.25" y2="1"><stop offset="0" stop-color="${light}"/><stop offset="0.62" stop-color="${middle}"/><stop offset="0.66" stop-color="${light}"/><stop offset="1" stop-color="${dark}"/></linearGradient>
<radialGradient id="lamp" cx="0.3" cy="0.15" r="0.9"><stop offset="0" stop-color="#fff" stop-opacity="0.2"/><stop offset="0.5" stop-color="#fff" stop-opacity="0"/><stop offset="1" stop-color="#000" stop-opacity="0.14"/></radialGradient>
<radialGradient id="soft"><stop offset="0" stop-color="#000" stop-opacity="0.5"/><stop offset="0.55" stop-color="#000" stop-opacity="0.36"/><stop offset="1" stop-color="#000" stop-opacity="0"/></radialGradient>
<linearGradient id="gloss" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#fff" stop-opacity="0.5"/><stop offset="0.3" stop-color="#fff" stop-opacity="0.06"/><stop offset="1" stop-color="#000" stop-opacity="0.3"/></linearGradient>
<linearGradient id="metal" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#fbfbfa"/><stop offset="0.35" stop-color="#c9cac8"/><stop offset="0.6" stop-color="#e9e9e7"/><stop offset="1" stop-color="#8d8f8e"/></linearGradient>
<linearGradient id="blackmetal" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#5b5c5e"/><stop offset="0.4" stop-color="#26272a"/><stop offset="1" stop-color="#121214"/></linearGradient>
<radialGradient id="glass" cx="0.35" cy="0.3" r="0.8"><stop offset="0" stop-color="#cfe0ff"/><stop offset="0.25" stop-color="#5b6fa8"/><stop offset="0.6" stop-color="#1c2140"/><stop offset="1" stop-color="#07080f"/></radialGradient>
<pattern id="leather" width="${grains * 9}" height="${grains * 9}" patternUnits="userSpaceOnUse">${leather}</pattern>
<pattern id="knurl" width="${ridges * 6}" height="60" patternUnits="userSpaceOnUse">${knurl}</pattern>
${drawing.defs}
</defs>
<rect width="1200" height="900" fill="url(#sweep)"/>
<ellipse cx="${600 + 26}" cy="${bottom}" rx="${width * 0.66}" ry="${Math.max(40, height * 0.15)}" fill="url(#soft)"/>
<g transform="translate(600 ${bottom - height / 2}) ${turn} translate(${-width / 2} ${-height / 2})">${drawing.body}${view === 'flaw' ? flaw : ''}</g>
<rect width="1200" height="900" fill="url(#lamp)"/>
</svg>`;
}

export const escapeXml = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');
