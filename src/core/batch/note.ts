/** A ready-made sentence for a condition note. */
export type Snippet = string;

const ended = (sentence: string): string => (/[.!?…]$/.test(sentence) ? sentence : `${sentence}.`);

/** The sentences as one note, in the order of their list, whichever was switched on first; what was typed besides comes last. */
export function noteOf(list: readonly Snippet[], on: readonly Snippet[], besides = ''): string {
  const sentences = [...list.filter((one) => on.includes(one)), besides].map((one) => one.trim()).filter(Boolean);
  return sentences.map(ended).join(' ');
}

/** The list with one sentence switched on or off. */
export const withSwitched = (on: readonly Snippet[], one: Snippet): Snippet[] =>
  on.includes(one) ? on.filter((other) => other !== one) : [...on, one];

/**
 * Which of the sentences a note holds, and what else it says: put together again by `noteOf` it says the same, in the order
 * of the list.
 */
export function noteParts(list: readonly Snippet[], note: string): { on: Snippet[]; besides: string } {
  let rest = ` ${note} `;
  // The longest first: one sentence may begin like another.
  const found = [...list]
    .map((one) => one.trim())
    .filter(Boolean)
    .sort((a, b) => b.length - a.length)
    .filter((one) => {
      const at = rest.indexOf(` ${ended(one)} `);
      if (at < 0) return false;
      rest = `${rest.slice(0, at)} ${rest.slice(at + ended(one).length + 2)}`;
      return true;
    });
  return { on: list.filter((one) => found.includes(one.trim())), besides: rest.replace(/ {2,}/g, ' ').trim() };
}
