import type { Area } from '@/core/artwork/place';

/** Our own plain drawings of what artwork is printed on. */
export type Drawing = 'sheet' | 'canvas' | 'mug' | 'bag' | 'shirt';

const words: [RegExp, Drawing][] = [
  [/mug|cup|tumbler/i, 'mug'],
  [/bag|tote|pouch|sack/i, 'bag'],
  [/shirt|hoodie|jumper|sweat|top|dress/i, 'shirt'],
  [/canvas|board|block|panel/i, 'canvas'],
];

const drawings: Drawing[] = ['sheet', 'canvas', 'mug', 'bag', 'shirt'];

/** Which drawing fits a product, by its name. */
export const drawingOf = (product: string): Drawing => words.find(([form]) => form.test(product))?.[1] ?? 'sheet';

type Frame = { x: number; y: number; width: number; height: number };

/** How much of the drawing is seen around the area, in millimetres of it. */
export function frameOf(drawing: Drawing, { widthMm: w, heightMm: h }: Pick<Area, 'widthMm' | 'heightMm'>): Frame {
  const around = (left: number, top: number, right: number, bottom: number): Frame => ({
    x: -left * w,
    y: -top * h,
    width: w * (1 + left + right),
    height: h * (1 + top + bottom),
  });
  switch (drawing) {
    case 'mug':
      return around(0.08, 0.22, 0.28, 0.22);
    case 'bag':
      return around(0.3, 0.75, 0.3, 0.2);
    case 'shirt':
      return around(0.75, 0.35, 0.75, 0.6);
    case 'canvas':
      return around(0.06, 0.06, 0.12, 0.1);
    case 'sheet':
      return around(0.07, 0.06, 0.07, 0.07);
  }
}

/** The outline of the thing, around an area whose upper left corner is the origin. */
function bodyOf(drawing: Drawing, w: number, h: number): string {
  switch (drawing) {
    case 'mug':
      return `M${-0.03 * w} ${-0.12 * h} H${1.03 * w} V${1.02 * h} Q${1.03 * w} ${1.14 * h} ${0.97 * w} ${1.14 * h} H${0.03 * w} Q${-0.03 * w} ${1.14 * h} ${-0.03 * w} ${1.02 * h} Z`;
    case 'bag':
      return `M${-0.16 * w} ${-0.24 * h} H${1.16 * w} L${1.22 * w} ${1.14 * h} H${-0.22 * w} Z`;
    case 'shirt':
      return `M${0.28 * w} ${-0.24 * h} Q${0.5 * w} ${-0.1 * h} ${0.72 * w} ${-0.24 * h} L${1.1 * w} ${-0.17 * h} L${1.66 * w} ${0.26 * h} L${1.38 * w} ${0.46 * h} L${1.2 * w} ${0.3 * h} V${1.5 * h} H${-0.2 * w} V${0.3 * h} L${-0.38 * w} ${0.46 * h} L${-0.66 * w} ${0.26 * h} L${-0.1 * w} ${-0.17 * h} Z`;
    default:
      return `M0 0 H${w} V${h} H0 Z`;
  }
}

/** Folds and roundness: light and shade that are multiplied with what lies under them, from left to right. */
const shades: Record<Drawing, [at: number, grey: number][]> = {
  mug: [
    [0, 196],
    [0.1, 232],
    [0.35, 255],
    [0.7, 246],
    [0.92, 222],
    [1, 190],
  ],
  bag: [
    [0, 215],
    [0.18, 250],
    [0.3, 228],
    [0.46, 255],
    [0.68, 236],
    [0.8, 255],
    [1, 210],
  ],
  shirt: [
    [0, 200],
    [0.2, 246],
    [0.34, 228],
    [0.5, 255],
    [0.64, 232],
    [0.8, 250],
    [1, 200],
  ],
  canvas: [
    [0, 255],
    [1, 238],
  ],
  sheet: [
    [0, 255],
    [0.5, 250],
    [1, 240],
  ],
};

type Props = { drawing: Drawing; area: Area; ground: string };

/** What lies under the picture: the thing in the colour of its ground. */
export function Body({ drawing, area, ground }: Props) {
  const { widthMm: w, heightMm: h } = area;
  const line = { fill: 'none', stroke: '#8a8a8a', vectorEffect: 'non-scaling-stroke' as const };
  return (
    <>
      {drawing === 'mug' ? (
        <path
          d={`M${1.03 * w} ${0.14 * h} C${1.3 * w} ${0.1 * h} ${1.3 * w} ${0.9 * h} ${1.03 * w} ${0.84 * h}`}
          fill="none"
          stroke={ground}
          strokeWidth={0.1 * h}
        />
      ) : null}
      {drawing === 'bag'
        ? [0, 1].map((side) => (
            <path
              key={side}
              d={`M${0.2 * w} ${-0.24 * h} C${0.22 * w} ${(-0.62 - 0.06 * side) * h} ${0.78 * w} ${(-0.62 - 0.06 * side) * h} ${0.8 * w} ${-0.24 * h}`}
              fill="none"
              stroke={side ? '#9c9c9c' : ground}
              strokeWidth={0.045 * w}
            />
          ))
        : null}
      {drawing === 'canvas' ? (
        <path
          d={`M${w} 0 L${1.05 * w} ${0.03 * h} V${1.05 * h} H${0.04 * w} L0 ${h} H${w} Z`}
          fill="#b4b4b4"
          stroke="none"
        />
      ) : null}
      <path d={bodyOf(drawing, w, h)} fill={ground} />
      <path d={bodyOf(drawing, w, h)} {...line} />
    </>
  );
}

const shadeId = (drawing: Drawing) => `shade-${drawing}`;

/** The shadings of all drawings, once on a page on which there are many. */
export function Shades() {
  return (
    <svg width="0" height="0" className="absolute" aria-hidden="true">
      {drawings.map((drawing) => (
        <linearGradient key={drawing} id={shadeId(drawing)} x1="0" x2="1" y1="0" y2={drawing === 'mug' ? '0' : '0.18'}>
          {shades[drawing].map(([at, grey]) => (
            <stop key={at} offset={at} stopColor={`rgb(${grey} ${grey} ${grey})`} />
          ))}
        </linearGradient>
      ))}
    </svg>
  );
}

/** What lies over it: the shading of folds and of a round wall. */
export function Shade({ drawing, area }: Pick<Props, 'drawing' | 'area'>) {
  const { widthMm: w, heightMm: h } = area;
  return <path d={bodyOf(drawing, w, h)} fill={`url(#${shadeId(drawing)})`} style={{ mixBlendMode: 'multiply' }} />;
}
