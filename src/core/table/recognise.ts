import { isGtin, isIsbn10 } from '../barcode';
import type { Column } from './column';
import { synonyms } from './synonyms';

/** What a column of a file was taken for, how surely (0 to 1), and why. */
export type Recognised = {
  header: string;
  column: string | null;
  certainty: number;
  why: 'remembered' | 'id' | 'name' | 'synonym' | 'content' | 'nothing';
};

/** A name without what people write it with: case, accents, signs, units in brackets. */
export const plainName = (name: string): string =>
  name
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase()
    .replace(/\(.*?\)|\[.*?\]/g, ' ')
    .replace(/[^\p{L}\p{N}·.]+/gu, ' ')
    .trim();

/** Columns of the same names in any order: what is remembered for one such file holds for the next. */
export const signatureOf = (headers: readonly string[]): string => [...headers].map(plainName).sort().join('\n');

type Guess = { column: string; certainty: number; why: Recognised['why'] };

const known = new Map(
  Object.entries(synonyms).flatMap(([id, names]) => names.map((name): [string, string] => [plainName(name), id])),
);

function byName(header: string, columns: readonly Column[]): Guess[] {
  const plain = plainName(header);
  const guesses: Guess[] = [];
  for (const { id, label } of columns) {
    if (plainName(id) === plain) guesses.push({ column: id, certainty: 1, why: 'id' });
    else if (plainName(label) === plain) guesses.push({ column: id, certainty: 0.98, why: 'name' });
  }
  const meant = known.get(plain);
  if (meant && columns.some((one) => one.id === meant)) guesses.push({ column: meant, certainty: 0.9, why: 'synonym' });
  return guesses;
}

const share = (values: readonly string[], fits: (value: string) => boolean): number =>
  values.length === 0 ? 0 : values.filter(fits).length / values.length;

/** What the values look like, where the name says nothing. */
function byContent(values: readonly string[], columns: readonly Column[]): Guess[] {
  const said = values.map((one) => one.trim()).filter(Boolean);
  const guesses: [string, number][] = [
    ['barcode', share(said, (one) => isGtin(one) || isIsbn10(one)) >= 0.8 ? 0.8 : 0],
    ['description', share(said, (one) => one.length > 300 || /<(p|br|ul|li)\b/i.test(one)) >= 0.5 ? 0.6 : 0],
    ['photos', share(said, (one) => /^https?:\/\/\S+\.(jpe?g|png|webp)/i.test(one)) >= 0.8 ? 0.7 : 0],
  ];
  return guesses
    .filter(([id, certainty]) => certainty > 0 && columns.some((one) => one.id === id))
    .map(([column, certainty]) => ({ column, certainty, why: 'content' }));
}

/**
 * Ties the columns of a file to fields, each field once, the surest first.
 * @param headers as they stand in the file
 * @param samples some values of each column
 * @param columns what there is to be tied to
 * @param remembered header → column id, from the last file with these columns
 */
export function recognise(
  headers: readonly string[],
  samples: readonly (readonly string[])[],
  columns: readonly Column[],
  remembered: Readonly<Record<string, string | null>> = {},
): Recognised[] {
  const guesses = headers.flatMap((header, at) => {
    const kept = remembered[plainName(header)];
    if (kept !== undefined)
      return kept === null ? [] : [{ at, column: kept, certainty: 1, why: 'remembered' as const }];
    return [...byName(header, columns), ...byContent(samples[at] ?? [], columns)].map((one) => ({ at, ...one }));
  });
  const best = guesses
    .filter((one) => columns.some((column) => column.id === one.column))
    .sort((a, b) => b.certainty - a.certainty || a.at - b.at);
  const tied = new Map<number, Guess>();
  const taken = new Set<string>();
  for (const { at, ...guess } of best) {
    if (tied.has(at) || taken.has(guess.column)) continue;
    tied.set(at, guess);
    taken.add(guess.column);
  }
  return headers.map((header, at) => ({
    header,
    ...(tied.get(at) ?? { column: null, certainty: 0, why: 'nothing' as const }),
  }));
}

/** What is remembered of a file's columns for the next one. */
export const tiesByName = (
  headers: readonly string[],
  ties: readonly (string | null)[],
): Record<string, string | null> =>
  Object.fromEntries(headers.map((header, at) => [plainName(header), ties[at] ?? null]));
