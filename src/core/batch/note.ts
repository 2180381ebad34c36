/** A ready-made sentence for a condition note. */
export type Snippet = string;

/** The sentences as one note, in the order of their list, whichever was switched on first; what was typed besides comes last. */
export function noteOf(list: readonly Snippet[], on: readonly Snippet[], besides = ''): string {
  const sentences = [...list.filter((one) => on.includes(one)), besides].map((one) => one.trim()).filter(Boolean);
  return sentences.map((one) => (/[.!?…]$/.test(one) ? one : `${one}.`)).join(' ');
}

/** The list with one sentence switched on or off. */
export const withSwitched = (on: readonly Snippet[], one: Snippet): Snippet[] =>
  on.includes(one) ? on.filter((other) => other !== one) : [...on, one];
