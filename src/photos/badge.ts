import type { BadgeArt, BadgeShape } from '../core/photo/layer';
import { drawLine } from './letters';

/** One em, in the units of the drawing. */
const em = 100;
/** Height of capitals, by which words are put in the middle. */
const capital = 0.727 * em;
const leading = 1.15 * em;

type Words = Extract<BadgeArt, { kind: 'words' }>;
type Lines = { lines: { width: number; path: string }[]; width: number; height: number };

/** Words in so many lines that the whole is as wide as high, where the shape is round. */
function linesOf(words: string, isRound: boolean): Lines {
  const parts = words.split(/\s+/);
  const layouts = isRound ? parts.map((_, at) => at + 1) : [1];
  const all = layouts.map((count) => {
    const share = Math.ceil(parts.length / count);
    const texts = Array.from({ length: Math.ceil(parts.length / share) }, (_, at) =>
      parts.slice(at * share, (at + 1) * share).join(' '),
    );
    const lines = texts.map((text) => drawLine(text, em));
    return { lines, width: Math.max(...lines.map((one) => one.width)), height: capital + leading * (lines.length - 1) };
  });
  return all.reduce((best, one) =>
    Math.hypot(one.width, one.height) < Math.hypot(best.width, best.height) ? one : best,
  );
}

type Ground = {
  width: number;
  height: number /** Where the middle of the words is. */;
  middle: number;
  drawing: string;
};

const round = (value: number) => Math.round(value * 100) / 100;
const points = (all: readonly (readonly [number, number])[]) =>
  all.map(([x, y]) => `${round(x)},${round(y)}`).join(' ');

function burst(side: number): string {
  const rays = 18;
  const all = Array.from({ length: rays * 2 }, (_, at): [number, number] => {
    const far = (side / 2) * (at % 2 ? 0.88 : 1);
    const angle = (at * Math.PI) / rays;
    return [side / 2 + far * Math.cos(angle), side / 2 + far * Math.sin(angle)];
  });
  return `<polygon points="${points(all)}"/>`;
}

/** What words of this size stand on. */
function groundOf(shape: BadgeShape, { width: w, height: h }: Lines): Ground {
  const across = Math.hypot(w, h);
  switch (shape) {
    case 'plain':
      return { width: w, height: h + 0.36 * em, middle: w / 2, drawing: '' };
    case 'box': {
      const [width, height] = [w + 1.2 * em, h + 1.1 * em];
      return {
        width,
        height,
        middle: width / 2,
        drawing: `<rect width="${round(width)}" height="${round(height)}" rx="${0.35 * em}"/>`,
      };
    }
    case 'pill': {
      const [width, height] = [w + 1.7 * em, h + 1.1 * em];
      return {
        width,
        height,
        middle: width / 2,
        drawing: `<rect width="${round(width)}" height="${round(height)}" rx="${round(height / 2)}"/>`,
      };
    }
    case 'round': {
      const side = across + 0.9 * em;
      return {
        width: side,
        height: side,
        middle: side / 2,
        drawing: `<circle cx="${round(side / 2)}" cy="${round(side / 2)}" r="${round(side / 2)}"/>`,
      };
    }
    case 'burst': {
      const side = across + 1.5 * em;
      return { width: side, height: side, middle: side / 2, drawing: burst(side) };
    }
    case 'tag': {
      const height = h + 1.1 * em;
      const nose = height / 2;
      const width = w + nose + 1.3 * em;
      const outline = points([
        [nose, 0],
        [width, 0],
        [width, height],
        [nose, height],
        [0, height / 2],
      ]);
      const hole = `<circle cx="${round(nose * 0.85)}" cy="${round(height / 2)}" r="${0.16 * em}" fill="#ffffff" fill-opacity="0.85"/>`;
      return {
        width,
        height,
        middle: nose + (width - nose) / 2 + 0.05 * em,
        drawing: `<polygon points="${outline}"/>${hole}`,
      };
    }
    case 'ribbon': {
      const height = h + em;
      const tail = height * 0.4;
      const width = w + 2 * tail + 1.3 * em;
      const outline = points([
        [0, 0],
        [width, 0],
        [width - tail, height / 2],
        [width, height],
        [0, height],
        [tail, height / 2],
      ]);
      return { width, height, middle: width / 2, drawing: `<polygon points="${outline}"/>` };
    }
  }
}

const isRound = (shape: BadgeShape) => shape === 'round' || shape === 'burst';

/** Width by height of words on a shape. */
export function wordsRatio({ shape, words }: Pick<Words, 'shape' | 'words'>): number {
  const { width, height } = groundOf(shape, linesOf(words, isRound(shape)));
  return Math.round((width / height) * 1_000) / 1_000;
}

/** Words on their shape as a drawing of outlines alone, `pixels` wide. */
export function wordsDrawing({ shape, words, ground, ink }: Words, pixels: number): string {
  const text = linesOf(words, isRound(shape));
  const { width, height, middle, drawing } = groundOf(shape, text);
  const top = (height - text.height) / 2 + capital;
  const lines = text.lines.map(
    (line, at) =>
      `<path transform="translate(${round(middle - line.width / 2)} ${round(top + at * leading)})" d="${line.path}"/>`,
  );
  const high = Math.max(1, Math.round((pixels * height) / width));
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${pixels}" height="${high}" viewBox="0 0 ${round(width)} ${round(height)}"><g fill="${ground}">${drawing}</g><g fill="${ink}">${lines.join('')}</g></svg>`;
}
