import { type Drawing, escapeXml, seeded } from './scene';

export type Thing = { kind: Kind; brand: string; model: string; seed: number; colour?: string; text?: string };
export type Kind =
  | 'slr'
  | 'rangefinder'
  | 'compact'
  | 'folding'
  | 'box-camera'
  | 'lens'
  | 'film'
  | 'strap'
  | 'book'
  | 'outfit'
  | 'meter'
  | 'bag'
  | 'print';

const label = (x: number, y: number, size: number, text: string, fill: string, extra = '') =>
  `<text x="${x}" y="${y}" font-family="DejaVu Sans, Liberation Sans, sans-serif" font-size="${size}" fill="${fill}" text-anchor="middle" ${extra}>${escapeXml(text)}</text>`;

const round = (x: number, y: number, w: number, h: number, r: number, fill: string, extra = '') =>
  `<rect x="${x}" y="${y}" width="${w}" height="${h}" rx="${r}" fill="${fill}" ${extra}/>`;

const lensFront = (cx: number, cy: number, r: number, name: string) => `
<circle cx="${cx + 8}" cy="${cy + 14}" r="${r}" fill="#000" fill-opacity="0.35"/>
<circle cx="${cx}" cy="${cy}" r="${r}" fill="url(#blackmetal)"/><circle cx="${cx}" cy="${cy}" r="${r}" fill="url(#knurl)" fill-opacity="0.7"/>
<circle cx="${cx}" cy="${cy}" r="${r * 0.86}" fill="#1b1c1f"/><circle cx="${cx}" cy="${cy}" r="${r * 0.86}" fill="none" stroke="#77797c" stroke-width="2"/>
<path id="ring${Math.round(cx)}" d="M ${cx - r * 0.72} ${cy} a ${r * 0.72} ${r * 0.72} 0 0 1 ${r * 1.44} 0" fill="none"/>
<text font-family="DejaVu Sans, sans-serif" font-size="${r * 0.105}" fill="#e8e6df" letter-spacing="2"><textPath href="#ring${Math.round(cx)}" startOffset="14%">${escapeXml(name)}</textPath></text>
<circle cx="${cx}" cy="${cy}" r="${r * 0.6}" fill="#0b0c10"/><circle cx="${cx}" cy="${cy}" r="${r * 0.52}" fill="url(#glass)"/>
<ellipse cx="${cx - r * 0.18}" cy="${cy - r * 0.2}" rx="${r * 0.16}" ry="${r * 0.09}" fill="#fff" fill-opacity="0.75" transform="rotate(-35 ${cx - r * 0.18} ${cy - r * 0.2})"/>
<circle cx="${cx + r * 0.2}" cy="${cy + r * 0.22}" r="${r * 0.07}" fill="#d9a6e8" fill-opacity="0.5"/>`;

const dial = (x: number, y: number, w: number, h: number, metal: string) =>
  `${round(x, y, w, h, 5, `url(#${metal})`)}${round(x, y, w, h, 5, 'url(#knurl)', 'fill-opacity="0.5"')}`;

function slr({ brand, model, colour = 'black', seed }: Thing): Drawing {
  const random = seeded(seed);
  const metal = colour === 'silver' ? 'metal' : 'blackmetal';
  const ink = colour === 'silver' ? '#222' : '#eee';
  const skin = colour === 'brown' ? '#5b3521' : '#1d1d1f';
  const hump = 150 + random() * 60;
  const wide = 700;
  return {
    width: wide,
    height: 430,
    defs: '',
    body: `${dial(70, 42, 90, 42, metal)}${dial(560, 36, 74, 48, metal)}${dial(480, 52, 46, 30, metal)}
${round(0, 78, wide, 352, 34, `url(#${metal})`)}
<path d="M ${350 - hump} 84 L ${350 - hump * 0.6} 12 Q 350 -8 ${350 + hump * 0.6} 12 L ${350 + hump} 84 Z" fill="url(#${metal})"/>
<path d="M ${350 - hump * 0.55} 20 Q 350 2 ${350 + hump * 0.55} 20 L ${350 + hump * 0.5} 30 L ${350 - hump * 0.5} 30 Z" fill="#fff" fill-opacity="0.2"/>
${label(350, 66, 34, brand.toUpperCase(), ink, 'font-weight="bold" letter-spacing="5"')}
${round(0, 138, wide, 236, 8, skin)}${round(0, 138, wide, 236, 8, 'url(#leather)')}
${label(120, 122, 22, model, ink, 'letter-spacing="2"')}
<circle cx="655" cy="112" r="9" fill="#a33"/>
${lensFront(350, 250, 172, `${brand.toUpperCase()}  1:1.8  f=50 mm  ${1000 + Math.floor(random() * 8999)}`)}
${round(-10, 150, 16, 46, 6, 'url(#metal)')}${round(wide - 6, 150, 16, 46, 6, 'url(#metal)')}
${round(0, 78, wide, 352, 34, 'url(#gloss)', 'fill-opacity="0.55"')}`,
  };
}

function rangefinder({ brand, model, colour = 'silver', seed }: Thing): Drawing {
  const random = seeded(seed);
  const metal = colour === 'black' ? 'blackmetal' : 'metal';
  const ink = colour === 'black' ? '#ddd' : '#333';
  const skin = colour === 'brown' ? '#6a3f26' : colour === 'green' ? '#2f4a38' : '#1c1c1e';
  return {
    width: 720,
    height: 380,
    defs: '',
    body: `${dial(90, 4, 80, 36, metal)}${dial(520, 0, 96, 40, metal)}${round(400, 16, 40, 24, 4, 'url(#metal)')}
${round(0, 36, 720, 344, 52, `url(#${metal})`)}
${round(0, 122, 720, 190, 6, skin)}${round(0, 122, 720, 190, 6, 'url(#leather)')}
${round(90, 60, 84, 46, 6, '#0c0d12')}${round(96, 66, 72, 34, 4, 'url(#glass)')}${round(340, 62, 44, 40, 6, '#0c0d12')}${round(560, 60, 96, 48, 6, '#15161a')}${round(566, 66, 84, 36, 4, '#5c6a83')}
${label(255, 96, 30, brand, ink, 'font-style="italic" font-weight="bold"')}${label(470, 100, 18, model, ink)}
${lensFront(360, 230, 118 + random() * 16, `${brand}  1:2.8  45 mm`)}
<path d="M 236 300 q 10 40 40 58" stroke="#999" stroke-width="10" fill="none"/>
${round(0, 36, 720, 344, 52, 'url(#gloss)', 'fill-opacity="0.5"')}`,
  };
}

function compact({ brand, model, colour = 'black', seed }: Thing): Drawing {
  const random = seeded(seed);
  const tint = { black: '#222326', silver: '#c9cbcc', red: '#a7282b', blue: '#2d4f7f' }[colour] ?? '#222326';
  const ink = colour === 'silver' ? '#222' : '#f2f2f2';
  return {
    width: 600,
    height: 340,
    defs: '',
    body: `${round(60, 0, 70, 26, 8, '#444')}${round(0, 18, 600, 322, 60, tint)}${round(380, 46, 150, 70, 12, '#e9e7df')}${round(392, 56, 126, 50, 8, '#f9f8f2')}
<path d="M 392 70 h126 M 392 84 h126" stroke="#ccc" stroke-width="3"/>
${round(250, 50, 70, 44, 8, '#0b0c10')}${round(256, 56, 58, 32, 5, 'url(#glass)')}
${lensFront(300, 214, 98 + random() * 12, `${brand} 35 mm 1:3.5`)}
${label(120, 90, 34, brand, ink, 'font-weight="bold"')}${label(490, 300, 22, model, ink)}
${round(0, 18, 600, 322, 60, 'url(#gloss)', 'fill-opacity="0.7"')}`,
  };
}

function folding({ brand, model, colour = 'black' }: Thing): Drawing {
  const skin = colour === 'brown' ? '#4f3020' : '#1a1a1c';
  const folds = Array.from(
    { length: 7 },
    (_, i) =>
      `<path d="M ${180 + i * 14} ${90 + i * 10} h ${240 - i * 28} v ${230 - i * 20} h ${-(240 - i * 28)} Z" fill="${i % 2 ? '#151517' : '#2a2a2e'}"/>`,
  ).join('');
  return {
    width: 600,
    height: 470,
    defs: '',
    body: `${round(0, 30, 600, 380, 40, skin)}${round(0, 30, 600, 380, 40, 'url(#leather)')}${round(120, 0, 110, 34, 6, 'url(#metal)')}${round(440, 10, 60, 24, 6, 'url(#metal)')}
${round(150, 60, 300, 300, 8, '#0d0d0f')}${folds}<path d="M 130 410 L 470 410 L 440 470 L 160 470 Z" fill="url(#metal)"/><path d="M 150 360 L 130 410 M 450 360 L 470 410" stroke="#aaa" stroke-width="10"/>
${lensFront(300, 220, 84, `${brand} 1:4.5 105 mm`)}${label(300, 396, 22, `${brand}  ${model}`, '#c9b98a', 'letter-spacing="3"')}`,
  };
}

function boxCamera({ brand, model, colour = 'black' }: Thing): Drawing {
  const skin = colour === 'brown' ? '#57361f' : colour === 'green' ? '#2c3f30' : '#1f1f22';
  return {
    width: 440,
    height: 480,
    defs: '',
    body: `<path d="M 120 40 q 100 -60 200 0" fill="none" stroke="#3a2a1e" stroke-width="18"/>${round(0, 40, 440, 440, 14, skin)}${round(0, 40, 440, 440, 14, 'url(#leather)')}
${round(24, 64, 392, 392, 6, 'none', 'stroke="#b9a46c" stroke-width="4"')}${lensFront(220, 270, 84, brand)}
${round(60, 92, 70, 54, 6, '#0b0b0d')}${round(66, 98, 58, 42, 4, 'url(#glass)')}${round(310, 92, 70, 54, 6, '#0b0b0d')}${round(316, 98, 58, 42, 4, 'url(#glass)')}
${label(220, 425, 30, `${brand} ${model}`, '#c9b473', 'font-weight="bold"')}${round(0, 40, 440, 440, 14, 'url(#gloss)', 'fill-opacity="0.4"')}`,
  };
}

function lens({ brand, model, colour = 'black', seed }: Thing): Drawing {
  const random = seeded(seed);
  const metal = colour === 'silver' ? 'metal' : 'blackmetal';
  const long = 300 + random() * 160;
  const ink = colour === 'silver' ? '#222' : '#eee';
  const marks = ['∞', '10', '5', '3', '2', '1.5', '1.2']
    .map((m, i) => label(60 + i * 50, 180, 22, m, i % 2 ? '#e7b24a' : ink))
    .join('');
  return {
    width: 400,
    height: long + 110,
    defs: '',
    body: `<ellipse cx="200" cy="34" rx="176" ry="34" fill="#111"/><ellipse cx="200" cy="34" rx="150" ry="27" fill="url(#glass)"/><ellipse cx="150" cy="26" rx="40" ry="8" fill="#fff" fill-opacity="0.6"/>
<path d="M 24 34 L 24 120 A 176 34 0 0 0 376 120 L 376 34 A 176 34 0 0 1 24 34 Z" fill="url(#${metal})"/>
<path d="M 14 120 L 14 ${long * 0.62} A 186 36 0 0 0 386 ${long * 0.62} L 386 120 A 186 36 0 0 1 14 120 Z" fill="url(#blackmetal)"/>
<path d="M 14 210 L 14 ${long * 0.6} A 186 36 0 0 0 386 ${long * 0.6} L 386 210 A 186 36 0 0 1 14 210 Z" fill="url(#knurl)"/>
${marks}
<path d="M 40 ${long * 0.62} L 40 ${long + 40} A 160 32 0 0 0 360 ${long + 40} L 360 ${long * 0.62} A 160 32 0 0 1 40 ${long * 0.62} Z" fill="url(#${metal})"/>
${label(200, long * 0.62 + 90, 26, `${brand}`, ink, 'font-weight="bold" letter-spacing="3"')}${label(200, long * 0.62 + 124, 20, model, ink)}
<path d="M 70 ${long + 44} L 70 ${long + 84} A 130 24 0 0 0 330 ${long + 84} L 330 ${long + 44} A 130 24 0 0 1 70 ${long + 44} Z" fill="url(#metal)"/>
<circle cx="330" cy="${long * 0.66}" r="8" fill="#c33"/><path d="M 60 40 L 60 ${long + 50}" stroke="#fff" stroke-opacity="0.25" stroke-width="14"/>`,
  };
}

const filmTints = ['#d8672d', '#2e6b57', '#31528f', '#b33a48', '#8c6d2f', '#444b55'];

function film({ brand, model, text = '35 mm', seed }: Thing): Drawing {
  const tint = filmTints[seed % filmTints.length] ?? '#555';
  return {
    width: 620,
    height: 400,
    defs: '',
    body: `<path d="M 0 60 L 60 10 L 400 10 L 340 60 Z" fill="${tint}" fill-opacity="0.75"/><path d="M 340 60 L 400 10 L 400 330 L 340 400 Z" fill="#000" fill-opacity="0.45"/><path d="M 340 60 L 400 10 L 400 330 L 340 400 Z" fill="${tint}" fill-opacity="0.55"/>
${round(0, 60, 340, 340, 4, tint)}${round(0, 60, 340, 90, 4, '#f6f1e4')}${label(170, 122, 46, brand, '#23201c', 'font-weight="bold"')}
${label(170, 240, 62, model, '#fff', 'font-weight="bold"')}${label(170, 300, 30, text, '#fff')}${round(24, 330, 292, 44, 4, '#fff', 'fill-opacity="0.18"')}${label(170, 362, 24, 'DEVELOP BEFORE 08 · 2028', '#fff')}
<ellipse cx="520" cy="372" rx="74" ry="22" fill="#1a1a1c"/><path d="M 446 190 L 446 372 A 74 22 0 0 0 594 372 L 594 190 Z" fill="${tint}"/><path d="M 446 230 L 594 230 L 594 290 L 446 290 Z" fill="#f6f1e4"/>${label(520, 270, 30, model, '#23201c', 'font-weight="bold"')}
<ellipse cx="520" cy="190" rx="74" ry="22" fill="#2a2a2d"/><ellipse cx="520" cy="176" rx="22" ry="9" fill="url(#metal)"/>${round(500, 150, 40, 30, 6, 'url(#metal)')}<path d="M 446 320 l -60 14 l 0 44 l 62 -8 Z" fill="#4a3626"/>
<path d="M 460 190 L 460 376" stroke="#fff" stroke-opacity="0.4" stroke-width="12"/>`,
  };
}

const dyes: Record<string, string> = {
  black: '#222224',
  brown: '#6b4024',
  green: '#3b5a45',
  blue: '#2f4c72',
  red: '#8d2f30',
  natural: '#c2a77d',
};

function strap({ brand, colour = 'brown' }: Thing): Drawing {
  const dye = dyes[colour] ?? '#6b4024';
  const band = (width: number, stroke: string, extra = '') =>
    `<path d="M 60 420 C -60 120 240 -40 340 160 C 440 360 640 320 640 120 C 640 -20 480 0 470 130" fill="none" stroke="${stroke}" stroke-width="${width}" stroke-linecap="round" ${extra}/>`;
  return {
    width: 700,
    height: 440,
    defs: '',
    body: `${band(62, '#000', 'stroke-opacity="0.25" transform="translate(8 14)"')}${band(56, dye)}${band(44, '#fff', 'stroke-opacity="0.07"')}${band(48, '#000', 'stroke-opacity="0.18" stroke-dasharray="2 10"')}
<circle cx="60" cy="424" r="26" fill="none" stroke="url(#metal)" stroke-width="11"/><circle cx="470" cy="136" r="26" fill="none" stroke="url(#metal)" stroke-width="11"/>
${round(276, 84, 120, 48, 8, '#d9c49a', 'transform="rotate(52 336 108)"')}${label(336, 116, 22, brand, '#3a2a1c', 'transform="rotate(52 336 108)" font-weight="bold"')}`,
  };
}

const covers = ['#27405c', '#7a2f2b', '#34513a', '#c8a04b', '#4a4350'];

function book({ brand, model, seed }: Thing): Drawing {
  const cover = covers[seed % covers.length] ?? '#345';
  const words = model.split(' ');
  const lines = [words.slice(0, 2).join(' '), words.slice(2, 5).join(' '), words.slice(5).join(' ')].filter(Boolean);
  return {
    width: 420,
    height: 540,
    defs: '',
    body: `<path d="M 420 16 L 446 30 L 446 552 L 420 540 Z" fill="#efe8d8"/><path d="M 424 20 V 540 M 430 24 V 545 M 436 27 V 548" stroke="#cbbfa6" stroke-width="1.5"/><path d="M 10 540 L 446 552 L 420 540 Z" fill="#d9cfb8"/>
${round(0, 0, 420, 540, 6, cover)}${round(0, 0, 26, 540, 4, '#000', 'fill-opacity="0.25"')}${round(52, 60, 316, 200, 4, '#f3ecdb')}
${lines.map((line, i) => label(210, 128 + i * 50, 34, line, '#2b2620', 'font-weight="bold"')).join('')}
<circle cx="210" cy="370" r="74" fill="none" stroke="#f3ecdb" stroke-width="8"/><circle cx="210" cy="370" r="42" fill="none" stroke="#f3ecdb" stroke-width="5"/><circle cx="210" cy="370" r="12" fill="#f3ecdb"/>
${label(210, 500, 24, brand, '#f3ecdb', 'letter-spacing="3"')}${round(0, 0, 420, 540, 6, 'url(#gloss)', 'fill-opacity="0.4"')}`,
  };
}

function outfit({ brand, seed }: Thing): Drawing {
  const random = seeded(seed);
  const openItems = (x: number, y: number, tint: string) =>
    `<path d="M ${x} ${y} h 300 l 24 60 h -348 Z" fill="${tint}"/><path d="M ${x + 14} ${y + 6} h 272 l 14 38 h -300 Z" fill="#000" fill-opacity="0.18"/>`;
  return {
    width: 820,
    height: 440,
    defs: '',
    body: `${openItems(470, 330, '#b43b35')}${openItems(450, 366, '#e6e3da')}${openItems(430, 400, '#3a5f8a')}
<ellipse cx="150" cy="420" rx="118" ry="30" fill="#0d0d0f"/><path d="M 32 150 V 420 A 118 30 0 0 0 268 420 V 150 Z" fill="#1f1f22"/><ellipse cx="150" cy="150" rx="118" ry="30" fill="#303034"/><ellipse cx="150" cy="126" rx="70" ry="18" fill="#b43b35"/><path d="M 80 96 V 126 A 70 18 0 0 0 220 126 V 96 Z" fill="#b43b35"/><ellipse cx="150" cy="96" rx="70" ry="18" fill="#cf564e"/><path d="M 60 170 V 430" stroke="#fff" stroke-opacity="0.22" stroke-width="16"/>${label(150, 300, 30, brand, '#ddd', 'font-weight="bold"')}
${round(320, 110, 110, 310, 14, '#6a4a1f')}${round(348, 50, 54, 70, 6, '#23201d')}${round(330, 210, 90, 130, 4, '#f2ead6')}${label(375, 262, 14, 'DEVELOPER', '#2b2620')}${label(375, 300, 22, `${Math.round(300 + random() * 700)} ml`, '#2b2620')}<path d="M 338 120 V 410" stroke="#fff" stroke-opacity="0.3" stroke-width="10"/>
<path d="M 560 60 h 150 v 200 h -150 Z" fill="#f2f0ea"/><path d="M 575 75 h 120 v 130 h -120 Z" fill="#55585c"/><circle cx="635" cy="130" r="34" fill="#8f9499"/>${label(635, 240, 20, 'PAPER 13 × 18', '#333')}`,
  };
}

function meter({ brand, model, seed }: Thing): Drawing {
  const needle = -40 + (seed % 80);
  return {
    width: 300,
    height: 460,
    defs: '',
    body: `${round(0, 0, 300, 460, 38, '#232427')}${round(20, 24, 260, 150, 12, '#efe9d8')}<path d="M 50 150 A 110 110 0 0 1 250 150" fill="none" stroke="#333" stroke-width="4" stroke-dasharray="3 12"/>
<path d="M 150 160 L 150 60" stroke="#b3261e" stroke-width="5" transform="rotate(${needle} 150 160)"/>${label(150, 168, 18, brand, '#333')}
<circle cx="150" cy="310" r="112" fill="url(#metal)"/><circle cx="150" cy="310" r="112" fill="url(#knurl)" fill-opacity="0.35"/><circle cx="150" cy="310" r="84" fill="#f5f2ea"/>
${['2', '4', '5.6', '8', '11', '16', '22'].map((t, i) => label(150, 246, 20, t, '#222', `transform="rotate(${i * 51} 150 310)"`)).join('')}<circle cx="150" cy="310" r="40" fill="#2c2d30"/>${label(150, 318, 22, model, '#eee')}${round(0, 0, 300, 460, 38, 'url(#gloss)', 'fill-opacity="0.5"')}`,
  };
}

function bag({ brand, colour = 'brown' }: Thing): Drawing {
  const dye = dyes[colour] ?? '#6b4024';
  return {
    width: 620,
    height: 460,
    defs: '',
    body: `<path d="M 90 150 C 90 -60 530 -60 530 150" fill="none" stroke="${dye}" stroke-width="30"/>${round(0, 120, 620, 340, 40, dye)}${round(0, 120, 620, 340, 40, 'url(#leather)')}
<path d="M 0 150 Q 310 330 620 150 L 620 160 Q 620 120 580 120 H 40 Q 0 120 0 160 Z" fill="#000" fill-opacity="0.18"/><path d="M 16 130 H 604 V 250 Q 310 350 16 250 Z" fill="${dye}"/><path d="M 30 140 H 590 V 242 Q 310 336 30 242 Z" fill="none" stroke="#e7d3a8" stroke-width="3" stroke-dasharray="10 7"/>
${round(280, 270, 60, 76, 8, 'url(#metal)')}${round(296, 290, 28, 30, 4, '#3a2a1c')}${label(310, 410, 26, brand, '#e7d3a8', 'letter-spacing="4"')}${round(0, 120, 620, 340, 40, 'url(#gloss)', 'fill-opacity="0.4"')}`,
  };
}

function print({ seed }: Thing): Drawing {
  const random = seeded(seed);
  const hills = Array.from({ length: 3 }, (_, layer) => {
    const y = 250 + layer * 55;
    const points = Array.from({ length: 9 }, (_, i) => `${70 + i * 58} ${y - random() * (90 - layer * 25)}`).join(
      ' L ',
    );
    return `<path d="M 70 420 L ${points} L 534 420 Z" fill="#${['9aa3a8', '5f686d', '2c3235'][layer]}"/>`;
  }).join('');
  const mast = 150 + random() * 300;
  return {
    width: 604,
    height: 490,
    defs: '',
    body: `${round(0, 0, 604, 490, 4, '#2a2119')}${round(10, 10, 584, 470, 2, '#4a3a2b')}${round(24, 24, 556, 442, 0, '#f7f4ec')}${round(70, 66, 464, 354, 0, '#cfd4d6')}
<circle cx="${180 + random() * 240}" cy="150" r="38" fill="#f4f2ea"/>${hills}<path d="M ${mast} 392 V 240 L ${mast + 60} 380 Z M ${mast - 6} 250 L ${mast - 44} 380 H ${mast - 6} Z" fill="#f4f2ea"/><path d="M ${mast - 60} 392 h 130 l -24 22 h -84 Z" fill="#1b1f21"/>
<path d="M 24 24 L 300 24 L 120 466 L 24 466 Z" fill="#fff" fill-opacity="0.12"/>`,
  };
}

const drawings: Record<Kind, (thing: Thing) => Drawing> = {
  slr,
  rangefinder,
  compact,
  folding,
  'box-camera': boxCamera,
  lens,
  film,
  strap,
  book,
  outfit,
  meter,
  bag,
  print,
};

/** The thing itself, from the front. */
export const drawThing = (thing: Thing): Drawing => drawings[thing.kind](thing);

/** The carton it comes in. */
export const drawCarton = ({ brand, model, seed }: Thing): Drawing => ({
  width: 640,
  height: 420,
  defs: '',
  body: `<path d="M 0 90 L 110 0 L 640 0 L 530 90 Z" fill="#caa877"/><path d="M 530 90 L 640 0 L 640 320 L 530 420 Z" fill="#8f6f43"/>${round(0, 90, 530, 330, 2, '#b58f5b')}
${round(60, 150, 300, 190, 4, '#f6f2e8')}${label(210, 214, 38, brand, '#222', 'font-weight="bold"')}${label(210, 262, 26, model, '#444')}${Array.from({ length: 30 }, (_, i) => `<rect x="${100 + i * 7}" y="284" width="${1 + ((seed * (i + 3)) % 5)}" height="38" fill="#222"/>`).join('')}
<path d="M 250 90 h 40 v 330 h -40 Z" fill="#e8dcc0" fill-opacity="0.45"/>`,
});

/** Scratches and a rub mark, for the picture of the flaw. */
export function drawFlaw(seed: number): string {
  const random = seeded(seed + 7);
  const lines = Array.from({ length: 5 }, () => {
    const x = 90 + random() * 160;
    const y = 180 + random() * 130;
    return `<path d="M ${x} ${y} l ${20 + random() * 50} ${-10 + random() * 30}" stroke="#f5efe4" stroke-opacity="0.8" stroke-width="${1 + random() * 2}"/>`;
  }).join('');
  return `${lines}<ellipse cx="${150 + random() * 60}" cy="${230 + random() * 50}" rx="22" ry="12" fill="#d8c9ad" fill-opacity="0.55"/>`;
}
