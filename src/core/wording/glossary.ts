import type { ProposedPart, WordingMaker, WordingWish } from './maker';
import type { Term } from './term';

export type Translated = {
  text: string;
  /** The terms that were put in, in the order in which they were met, each once. */
  used: Term[];
  /** Words that no term says. */
  left: number;
};

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
const isCapital = (text: string) => /^\p{Lu}/u.test(text);
const raised = (text: string) => text.replace(/^\p{Ll}/u, (first) => first.toUpperCase());
const markup = /(<[^>]*>|&[a-z#0-9]+;)/gi;
const word = /[\p{L}\p{M}]{2,}/gu;

/**
 * A text with one's own terms put in, word for word: the longest term first, whole words only, a capital where there was
 * one. Markup stays as it is. Nothing else is translated.
 */
export function translateByTerms(text: string, terms: readonly Term[]): Translated {
  const used = new Map<string, Term>();
  const known = new Map(terms.map((one) => [one.from.toLowerCase(), one]));
  const longest = [...known.keys()].sort((a, b) => b.length - a.length);
  if (longest.length === 0) return { text, used: [], left: text.replace(markup, ' ').match(word)?.length ?? 0 };
  const any = new RegExp(`(?<![\\p{L}\\p{N}])(${longest.map(escaped).join('|')})(?![\\p{L}\\p{N}])`, 'giu');
  let left = 0;
  const parts = text.split(markup).map((part, at) => {
    if (at % 2 === 1) return part;
    left += part.replace(any, ' ').match(word)?.length ?? 0;
    return part.replace(any, (found) => {
      const term = known.get(found.toLowerCase());
      if (!term) return found;
      used.set(term.from, term);
      return isCapital(found) ? raised(term.to) : term.to;
    });
  });
  return { text: parts.join(''), used: [...used.values()], left };
}

const shownTerms = 6;

function why({ used, left }: Pick<Translated, 'used' | 'left'>): string {
  const told = used.slice(0, shownTerms).map(({ from, to }) => `${from} → ${to}`);
  const more = used.length > shownTerms ? ` and ${used.length - shownTerms} more` : '';
  return `word for word: ${told.join(', ')}${more}${left ? `; ${left} ${left === 1 ? 'word has' : 'words have'} no term` : ''}`;
}

const textsOf = ({ item, field }: WordingWish): string[] => {
  switch (field) {
    case 'title':
      return [item.title];
    case 'description':
      return [item.description];
    case 'tags':
      return item.keywords;
    case 'highlights':
      return item.highlights;
  }
};

/** The translator that comes with Netting: one's own terms, word for word, and it says so. Where there is no other language, or no term is met, it proposes nothing. */
export const glossaryWording: WordingMaker = {
  name: 'by your own terms, word for word',
  propose(wish) {
    const { field, language = '', terms = [] } = wish;
    const made = language === '' ? [] : textsOf(wish).map((text) => translateByTerms(text, terms));
    const isEmpty = made.every((one) => one.used.length === 0);
    const parts: ProposedPart[] = isEmpty
      ? []
      : made.slice(0, wish.maxItems).map((one) => ({
          text: one.text,
          why: one.used.length ? why(one) : 'no term of yours is in it',
        }));
    const texts = parts.map((one) => one.text);
    return {
      field,
      parts,
      value: field === 'tags' || field === 'highlights' ? texts : (texts[0] ?? ''),
      maker: this.name,
    };
  },
};
