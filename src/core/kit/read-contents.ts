import type { ContentKind, ContentLine } from './contents';

/** A line that cannot be meant, by its number from 1. */
export type ContentsFault = { line: number; text: string; why: string };

/** More of one thing lie in no set. */
export const mostOfOne = 100_000;
const before = /^(\d[\d.,  ]*)\s*(?:x|×|pcs\.?|pieces)\s+(.+)$/iu;
const behind = /^(.+?)\s*(?:[x×]\s*(\d[\d.,]*)|\((\d[\d.,]*)\))$/iu;
const vague = /^(about|around|circa|ca\.?|some|several|a few|many|roughly|~)\s/iu;
const kinds: [RegExp, ContentKind][] = [
  [/\s*[([]spares?[)\]]\s*$/iu, 'spare'],
  [/\s*[([]paper[)\]]\s*$/iu, 'paper'],
  [/\s*[([]box[)\]]\s*$/iu, 'box'],
];

/**
 * Reads a contents list that was pasted: a thing a line, `2 x tray 18 × 24`, `tray 18 × 24 (2)`, `film clip x 4`; without a
 * number it is one. `(spare)`, `(paper)`, `(box)` behind it say what it is.
 */
export function readContents(text: string): { lines: ContentLine[]; faults: ContentsFault[] } {
  const lines: ContentLine[] = [];
  const faults: ContentsFault[] = [];
  for (const [index, row] of text.split(/\r?\n/).entries()) {
    const said = row.replace(/^[\s•*–-]+/u, '').trim();
    if (!said) continue;
    const read = readLine(said);
    if (typeof read === 'string') faults.push({ line: index + 1, text: said.slice(0, 120), why: read });
    else lines.push(read);
  }
  return { lines, faults };
}

function readLine(said: string): ContentLine | string {
  if (vague.test(said)) return 'How many is not a number: write it before the name, such as 10 x';
  const [, kind = 'part'] = kinds.find(([mark]) => mark.test(said)) ?? [];
  const bare = kinds.reduce((rest, [mark]) => rest.replace(mark, ''), said);
  const first = before.exec(bare);
  const last = first ? null : behind.exec(bare);
  const digits = first?.[1] ?? last?.[2] ?? last?.[3];
  const name = (first?.[2] ?? last?.[1] ?? bare).trim();
  const quantity = digits === undefined ? 1 : whole(digits);
  if (quantity === null)
    return `“${digits}” is not a whole number of pieces from 1 to ${mostOfOne.toLocaleString('en')}`;
  if (!name) return 'What it is, is missing';
  return { entry: '', name: name.slice(0, 200), finish: '', quantity, grams: null, sort: '', kind, isSet: false };
}

/** A number of pieces as it is written in a cell; null where it is vague or none. */
export const piecesSaid = (text: string): number | null => (vague.test(`${text} `) ? null : whole(text));

function whole(digits: string): number | null {
  const value = /^\d{1,3}([,.\s]\d{3})+$/.test(digits.trim())
    ? Number(digits.replace(/[,.\s]/g, ''))
    : /^\d+$/.test(digits.trim())
      ? Number(digits)
      : Number.NaN;
  return Number.isInteger(value) && value >= 1 && value <= mostOfOne ? value : null;
}
