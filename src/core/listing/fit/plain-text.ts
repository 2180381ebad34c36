import { unescapeHtml } from './html';

/**
 * Rich text (already cleaned to the editor's small set of tags) as plain text that keeps paragraphs, line breaks and
 * lists. Nothing in the result is markup.
 */
export function toPlainText(html: string): string {
  // Several marketplaces take the same text of an item one after the other.
  if (last.html !== html) last = { html, text: asPlainText(html) };
  return last.text;
}

let last = { html: '', text: '' };

function asPlainText(html: string): string {
  let number: number[] = [];
  const marked = html
    .replace(/[\r\n]+/g, ' ')
    .replace(/<ol[^>]*>/gi, () => {
      number = [...number, 0];
      return '\n\u0001';
    })
    .replace(/<\/ol>/gi, '\n\u0002')
    .replace(/<\/?ul[^>]*>/gi, '\n')
    .replace(/<br\s*\/?>/gi, '\n')
    .replace(/<li[^>]*>/gi, '\n• ')
    .replace(/<\/(p|h[1-6]|div)>/gi, '\n\n')
    .replace(/<[^>]*>/g, '');
  let inOrdered = 0;
  let count = 0;
  const lines = marked.split('\n').map((line) => {
    let text = line;
    if (text.includes('\u0001')) {
      inOrdered++;
      count = 0;
      text = text.replace(/\u0001/g, '');
    }
    if (text.includes('\u0002')) {
      inOrdered--;
      text = text.replace(/\u0002/g, '');
    }
    if (inOrdered > 0 && text.startsWith('• ')) text = `${++count}. ${text.slice(2)}`;
    return unescapeHtml(text)
      .replace(/[ \t\u00a0]+/g, ' ')
      .trim();
  });
  return lines
    .join('\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim();
}

/** Plain text cut at a paragraph, sentence or word end so that it fits; says whether something was cut. */
export function cutText(text: string, max: number): { text: string; cut: boolean } {
  // Never more code points than code units.
  if (text.length <= max) return { text, cut: false };
  const points = [...text];
  if (points.length <= max) return { text, cut: false };
  const head = points.slice(0, max).join('');
  const at = Math.max(head.lastIndexOf('\n\n'), head.lastIndexOf('. ') + 1, head.lastIndexOf('\n'));
  const end = at > head.length * 0.6 ? at : head.lastIndexOf(' ');
  return { text: head.slice(0, end > 0 ? end : head.length).trimEnd(), cut: true };
}
