import { ownValue } from '../../json';
import { cutText } from './plain-text';
import { textLength } from './text-length';

const fillers = new Set(
  'a an and the with for in of on to from very really great nice lovely beautiful super rare wow look good quality item vintage old original genuine working tested'.split(
    ' ',
  ),
);

/** Words of the trade that may be written shorter before any word has to go. */
const abbreviations: Record<string, string> = {
  millimetre: 'mm',
  millimetres: 'mm',
  centimetres: 'cm',
  inches: 'in',
  inch: 'in',
  and: '&',
  with: 'w/',
  without: 'w/o',
  exposures: 'exp',
  automatic: 'auto',
  telephoto: 'tele',
  condition: 'cond',
  excellent: 'exc',
  piece: 'pc',
  pieces: 'pcs',
  black: 'blk',
  edition: 'ed',
  serviced: 'srv',
};

/** Colours and other words that distinguish little: they go before the words that say what it is. */
const minor = new Set(
  'black silver brown white green blue red grey chrome coupled mechanical single fresh classic compact automatic coated'.split(
    ' ',
  ),
);

export type FittedTitle = { text: string; lost: string[] };

const bare = (word: string) => word.toLowerCase().replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, '');
const tidy = (text: string) =>
  text
    .replace(/\s+/g, ' ')
    .replace(/\s+([,;:.)])/g, '$1')
    .replace(/\(\s*\)/g, '')
    .replace(/[\s,;:–-]+$/u, '')
    .trim();

/** A number and the unit behind it are one word: half of `35 mm` says nothing. */
const joinUnits = (words: string[]): string[] =>
  words.reduce<string[]>((joined, word) => {
    const last = joined.at(-1);
    if (last !== undefined && /^\d[\d.,/×x]*$/.test(last) && /^(mm|cm|m|in|inch|g|kg|ml|l|exp|iso)\b/i.test(word))
      joined[joined.length - 1] = `${last} ${word}`;
    else joined.push(word);
    return joined;
  }, []);

/**
 * A title shortened to `max` code points without breaking a word. First filler words go, then known abbreviations
 * are used, then whole words from the least telling on: colours and the like before plain words, later before earlier,
 * then sizes and years (a number and its unit stay together), then the words that say what it is; brand and model go
 * last of all.
 * @param keep brand and model, in any spelling of case
 * @param kind words that say what it is, such as those of its category
 * @returns the title and the words it lost; the unchanged title when it fits
 */
export function fitTitle(
  title: string,
  max: number,
  keep: readonly string[],
  kind: readonly string[] = [],
): FittedTitle {
  const whole = tidy(title);
  if (textLength(whole) <= max) return { text: whole, lost: [] };
  const kept = new Set(
    keep
      .flatMap((phrase) => phrase.split(/\s+/))
      .map(bare)
      .filter(Boolean),
  );
  const stems = new Set(
    kind.flatMap((phrase) => phrase.split(/[^\p{L}\p{N}]+/u)).map((word) => bare(word).replace(/(?<=.{3})s$/, '')),
  );
  let words = joinUnits(whole.split(' ')).map((text, index) => ({ text, index, key: bare(text) }));
  const lost: string[] = [];
  const length = () => textLength(tidy(words.map((word) => word.text).join(' ')));
  const drop = (gone: (typeof words)[number]) => {
    words = words.filter((word) => word !== gone);
    lost.push(gone.text);
  };

  for (const word of [...words].reverse()) {
    if (length() <= max) break;
    if ((fillers.has(word.key) || word.key === '') && !kept.has(word.key)) drop(word);
  }
  for (const word of words) {
    if (length() <= max) break;
    const short = kept.has(word.key) ? undefined : ownValue(abbreviations, word.key);
    if (short) word.text = word.text.toLowerCase().replace(word.key, short);
  }
  const weight = (word: (typeof words)[number]) =>
    (kept.has(word.key) ? 1_000 : 0) +
    (stems.has(word.key.replace(/(?<=.{3})s$/, '')) ? 300 : 0) +
    (/\d/.test(word.text) ? 100 : 0) -
    (minor.has(word.key) ? 200 : 0) -
    word.index;
  for (const word of [...words].sort((a, b) => weight(a) - weight(b))) {
    if (length() <= max || words.length === 1) break;
    drop(word);
  }
  const text = tidy(words.map((word) => word.text).join(' '));
  // A single word longer than the limit is the one thing that cannot be said whole.
  return { text: textLength(text) <= max ? text : cutText(text, max).text, lost };
}
