import sharp from 'sharp';

const side = 3_200;
const svg = (inner: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${side}" height="${side}" viewBox="0 0 320 320">${inner}</svg>`;

const waves = (from: number, to: number, colour: string, width: number) =>
  Array.from({ length: Math.floor((to - from) / 22) + 1 }, (_, row) => {
    const y = from + row * 22;
    return `<path d="M20 ${y} q 23 -16 46 0 t 46 0 t 46 0 t 46 0 t 46 0 t 46 0" fill="none" stroke="${colour}" stroke-width="${width}" stroke-linecap="round"/>`;
  }).join('');

const boat = (x: number, y: number, size: number, hull: string, sail: string) =>
  `<g transform="translate(${x} ${y}) scale(${size})"><path d="M-40 0 H40 L28 18 H-28 Z" fill="${hull}"/><path d="M0 -70 V-6 H-36 Z" fill="${sail}"/><path d="M6 -56 V-6 H30 Z" fill="${hull}"/></g>`;

const rings = (colours: string[]) =>
  colours
    .map(
      (colour, at) =>
        `<circle cx="160" cy="160" r="${140 - at * 26}" fill="none" stroke="${colour}" stroke-width="13"/>`,
    )
    .join('');

const leaf = (colour: string) =>
  `${Array.from({ length: 9 }, (_, at) => {
    const y = 60 + at * 26;
    const long = 74 - Math.abs(4 - at) * 9;
    return `<path d="M160 ${y + 22} q ${long / 2} -34 ${long} -26 q -8 30 -${long} 34 Z" fill="${colour}"/><path d="M160 ${y + 22} q -${long / 2} -34 -${long} -26 q 8 30 ${long} 34 Z" fill="${colour}"/>`;
  }).join('')}<path d="M160 44 V304" stroke="${colour}" stroke-width="5" stroke-linecap="round"/>`;

const gull = (x: number, y: number, size: number, colour: string) =>
  `<path transform="translate(${x} ${y}) scale(${size})" d="M-60 0 q 26 -34 60 0 q 34 -34 60 0 q -36 -14 -60 14 q -24 -28 -60 -14 Z" fill="${colour}"/>`;

const tower = (stone: string, bands: string, light: string) =>
  `<path d="M130 300 L144 90 H176 L190 300 Z" fill="${stone}"/>${[130, 186, 242]
    .map(
      (y) =>
        `<path d="M${141 - (y - 90) / 16} ${y} H${179 + (y - 90) / 16} L${181 + (y - 90) / 16} ${y + 26} H${139 - (y - 90) / 16} Z" fill="${bands}"/>`,
    )
    .join(
      '',
    )}<rect x="140" y="62" width="40" height="26" fill="${light}"/><path d="M134 62 L160 38 L186 62 Z" fill="${bands}"/>`;

const fish = (colour: string, eye: string) =>
  `<path d="M40 160 q 90 -96 190 0 l 60 -48 q -16 48 0 96 l -60 -48 q -100 96 -190 0 Z" fill="${colour}"/><circle cx="92" cy="146" r="10" fill="${eye}"/>`;

const hills = (colours: string[]) =>
  colours
    .map(
      (colour, at) =>
        `<path d="M20 ${190 + at * 26} q 60 -${90 - at * 18} 120 -10 t 160 -20 V 300 H20 Z" fill="${colour}"/>`,
    )
    .join('');

export type Drawn = { name: string; title: string; tags: string[]; audience: string; motif: string; inner: string };

/** Pictures of the house's own hand, each on nothing. */
export const artworks: Drawn[] = [
  {
    name: 'harbour_morning',
    title: 'Harbour in the morning',
    tags: ['harbour', 'boats'],
    audience: 'Sailors',
    motif: 'Harbour',
    inner: `<circle cx="236" cy="76" r="34" fill="#e0a33a"/>${boat(120, 190, 1.5, '#1f3b4d', '#b04a2f')}${waves(232, 290, '#2f5f7a', 7)}`,
  },
  {
    name: 'white_gulls',
    title: 'White gulls',
    tags: ['gulls', 'sea'],
    audience: 'Walkers',
    motif: 'Sea',
    inner: `${gull(110, 110, 1.1, '#fbfbf6')}${gull(220, 170, 1, '#fbfbf6')}${gull(120, 240, 0.8, '#fbfbf6')}`,
  },
  {
    name: 'lighthouse_red',
    title: 'The red lighthouse',
    tags: ['lighthouse', 'coast'],
    audience: 'Sailors',
    motif: 'Harbour',
    inner: tower('#f3ead6', '#a8322a', '#f2c14e'),
  },
  {
    name: 'rings_of_tide',
    title: 'Rings of the tide',
    tags: ['abstract', 'circles'],
    audience: 'Anyone',
    motif: 'Abstract',
    inner: rings(['#16324a', '#2f5f7a', '#6e9bb0', '#b8862f', '#8c2f2f']),
  },
  {
    name: 'fern',
    title: 'Fern',
    tags: ['leaf', 'wood'],
    audience: 'Gardeners',
    motif: 'Landscape',
    inner: leaf('#2d5a3c'),
  },
  {
    name: 'pale_fern',
    title: 'Pale fern',
    tags: ['leaf', 'night'],
    audience: 'Gardeners',
    motif: 'Landscape',
    inner: leaf('#f0e9d2'),
  },
  {
    name: 'night_swell',
    title: 'Night swell',
    tags: ['waves', 'night'],
    audience: 'Sailors',
    motif: 'Sea',
    inner: waves(50, 290, '#12161f', 9),
  },
  {
    name: 'three_boats',
    title: 'Three boats',
    tags: ['boats', 'regatta'],
    audience: 'Sailors',
    motif: 'Sea',
    inner: `${boat(80, 150, 0.9, '#23303a', '#d9a441')}${boat(170, 200, 1.2, '#23303a', '#b04a2f')}${boat(252, 140, 0.8, '#23303a', '#2f7a6a')}${waves(240, 284, '#3c6f8c', 6)}`,
  },
  {
    name: 'old_fish',
    title: 'Old fish',
    tags: ['fish', 'kitchen'],
    audience: 'Cooks',
    motif: 'Other',
    inner: fish('#7c8f99', '#141414'),
  },
  {
    name: 'hills_of_osterlund',
    title: 'Hills of Osterlund',
    tags: ['hills', 'land'],
    audience: 'Walkers',
    motif: 'Landscape',
    inner: `<circle cx="210" cy="90" r="40" fill="#d8663a"/>${hills(['#7d9a6a', '#54774f', '#2f4f3a'])}`,
  },
  {
    name: 'moon_over_quay',
    title: 'Moon over the quay',
    tags: ['moon', 'night'],
    audience: 'Anyone',
    motif: 'Town',
    inner: `<path d="M200 60 a 92 92 0 1 0 62 160 a 78 78 0 1 1 -62 -160 Z" fill="#e9e4d4"/>${waves(266, 288, '#c9d4da', 6)}`,
  },
  {
    name: 'knot',
    title: 'A good knot',
    tags: ['rope', 'knot'],
    audience: 'Sailors',
    motif: 'Harbour',
    inner:
      '<path d="M60 230 C60 90 150 90 160 160 S 260 230 260 90" fill="none" stroke="#8a6a3a" stroke-width="24" stroke-linecap="round"/><path d="M60 90 C60 230 150 230 160 160 S 260 90 260 230" fill="none" stroke="#b08a4e" stroke-width="24" stroke-linecap="round"/>',
  },
];

/** One of them as a picture with transparency, large enough to be printed. */
export const drawArtwork = ({ inner }: Drawn): Promise<Buffer> =>
  sharp(Buffer.from(svg(inner)), { limitInputPixels: false })
    .png()
    .toBuffer();
