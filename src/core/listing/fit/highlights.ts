import type { Item } from '../../item/item';
import { cutText } from './plain-text';
import { textLength } from './text-length';

export type FittedHighlights = { highlights: string[]; fromAttributes: number; lost: string[] };

const plain = (text: string) =>
  text
    .replace(/<[^>]*>/g, ' ')
    .replace(/[<>]/g, '')
    .replace(/\s+/g, ' ')
    .trim();

/**
 * The written highlights, cut to length at a word's end; when there are fewer than wanted the rest is said by the
 * item's attributes, the longest values (they tell most) last to keep short ones readable in the item's own order.
 */
export function fitHighlights(item: Item, limits: { min: number; max: number; maxLength: number }): FittedHighlights {
  const written = item.highlights.map(plain).filter(Boolean);
  const lost = written.slice(limits.max);
  const highlights = written.slice(0, limits.max).map((one) => {
    const { text, cut } = cutText(one, limits.maxLength);
    if (cut) lost.push(`the end of “${one.slice(0, 24)}…”`);
    return text;
  });
  let fromAttributes = 0;
  for (const [name, value] of Object.entries(item.attributes)) {
    if (highlights.length >= limits.min) break;
    const line = plain(`${name}: ${value}`);
    if (value.trim() === '' || textLength(line) > limits.maxLength || highlights.some((one) => one.includes(value)))
      continue;
    highlights.push(line);
    fromAttributes++;
  }
  return { highlights, fromAttributes, lost };
}

/**
 * Package contents in the form `2 x Name`: from a list such as `tank, 3 trays, bottle`; the thing itself when nothing
 * is said.
 */
export function fitContents(said: string | undefined, thing: string, maxLines: number): string[] {
  const parts = (said ?? '')
    .split(/[,;\n]/)
    .map((part) => plain(part))
    .filter(Boolean);
  const lines = (parts.length ? parts : [plain(thing) || 'Item']).map((part) => {
    const hit = /^(\d{1,3})\s*[x×]?\s+(.+)$/i.exec(part);
    const name = (hit?.[2] ?? part).trim();
    return `${hit?.[1] ?? 1} x ${name.charAt(0).toUpperCase()}${name.slice(1)}`.slice(0, 80).trim();
  });
  return lines.slice(0, maxLines);
}
