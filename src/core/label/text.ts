import type { Mark, Measure } from './mark';

const cut = (text: string, widthMm: number, size: number, measure: Measure): string => {
  if (measure(text) * size <= widthMm) return text;
  let kept = text;
  while (kept && measure(`${kept}…`) * size > widthMm) kept = kept.slice(0, -1);
  return kept ? `${kept.trimEnd()}…` : '';
};

/** A text broken between words into so many lines at most; what does not fit is cut with a sign that says so. */
export function linesOf(text: string, widthMm: number, most: number, size: number, measure: Measure): string[] {
  const lines: string[] = [];
  const words = text.split(/\s+/).filter(Boolean);
  while (words.length && lines.length < most) {
    if (lines.length === most - 1) return [...lines, cut(words.join(' '), widthMm, size, measure)];
    let line = words.shift() ?? '';
    for (let next = words[0]; next !== undefined && measure(`${line} ${next}`) * size <= widthMm; next = words[0]) {
      line += ` ${next}`;
      words.shift();
    }
    lines.push(cut(line, widthMm, size, measure));
  }
  return lines;
}

/** The largest size at which a text fits on one line, in millimetres, and not larger than asked. */
export function sizeFor(text: string, widthMm: number, largest: number, smallest: number, measure: Measure): number {
  const width = measure(text);
  return width === 0 ? largest : Math.max(smallest, Math.min(largest, widthMm / width));
}

type Box = { x: number; y: number; width: number };

/** Lines below each other from a top edge; returns where the next may begin. */
export function textBlock(lines: readonly string[], size: number, { x, y }: Box): { marks: Mark[]; below: number } {
  const leading = size * 1.18;
  return {
    marks: lines.map((text, index) => ({ is: 'text', x, y: y + size * 0.82 + index * leading, size, text })),
    below: y + lines.length * leading,
  };
}
