import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import opentype, { type Font } from 'opentype.js';

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

/**
 * A line of text as an outline, from the origin along the base line.
 * @param size height of an em; `width` is in the same measure
 */
export function drawLine(text: string, size: number): DrawnLine {
  let x = 0;
  let path = '';
  const [latin] = fonts();
  for (const sign of text) {
    const font = fontOf(sign) ?? latin;
    if (!font) continue;
    const glyph = font.charToGlyph(sign);
    path += glyph.getPath(x, 0, size).toPathData(2);
    x += ((glyph.advanceWidth ?? 0) * size) / font.unitsPerEm;
  }
  return { width: x, path };
}
