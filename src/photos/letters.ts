import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import opentype, { type Font, type Path } from 'opentype.js';

/** The face of the house, heavy; by alphabets. It ships with the application: a machine without any font draws the same. */
const files = ['latin', 'latin-ext', 'cyrillic', 'greek'].map((part) => `inter-${part}-700-normal.woff`);
const folder = join(process.cwd(), 'node_modules', '@fontsource', 'inter', 'files');

let loaded: Font[] | null = null;

function fonts(): Font[] {
  loaded ??= files.map((name) => {
    const bytes = readFileSync(join(folder, name));
    return opentype.parse(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
  });
  return loaded;
}

const fontOf = (sign: string): Font | undefined => fonts().find((font) => font.hasChar(sign));

/** Signs of a text that cannot be drawn, each once. */
export const unknownSigns = (text: string): string[] =>
  [...new Set([...text])].filter((sign) => sign.trim() !== '' && !fontOf(sign));

export type DrawnLine = { width: number; path: string };

type Letter = { advance: number; commands: Path['commands'] };
const letters = new Map<string, Letter>();

/** A sign with an em of 1: how far it goes on, and its outline. */
function letterOf(sign: string): Letter {
  const known = letters.get(sign);
  if (known) return known;
  const font = fontOf(sign) ?? fonts()[0];
  const glyph = font?.charToGlyph(sign);
  const made: Letter = {
    advance: (glyph?.advanceWidth ?? 0) / (font?.unitsPerEm ?? 1),
    commands: glyph?.getPath(0, 0, 1).commands ?? [],
  };
  letters.set(sign, made);
  return made;
}

/** How long a line is whose em is 1. */
export const lineWidth = (text: string): number => [...text].reduce((sum, sign) => sum + letterOf(sign).advance, 0);

/**
 * A line of text as an outline, from the origin along the base line.
 * @param size height of an em; `width` is in the same measure
 */
export function drawLine(text: string, size: number): DrawnLine {
  let x = 0;
  let path = '';
  for (const sign of text) {
    const { advance, commands } = letterOf(sign);
    const from = x;
    const at = (px: number | undefined, py: number | undefined) =>
      `${round((px ?? 0) * size + from)} ${round((py ?? 0) * size)}`;
    for (const one of commands) {
      if (one.type === 'Z') path += 'Z';
      else if (one.type === 'C') path += `C${at(one.x1, one.y1)} ${at(one.x2, one.y2)} ${at(one.x, one.y)}`;
      else if (one.type === 'Q') path += `Q${at(one.x1, one.y1)} ${at(one.x, one.y)}`;
      else path += `${one.type}${at(one.x, one.y)}`;
    }
    x += advance * size;
  }
  return { width: x, path };
}

const round = (value: number): number => Math.round(value * 1_000) / 1_000;
