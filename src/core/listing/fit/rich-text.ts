import { escapeHtml } from './escape-html';

/** Plain text as rich text: paragraphs at blank lines, everything else escaped. */
export function toRichText(plain: string): string {
  return plain
    .split(/\n{2,}/)
    .filter((paragraph) => paragraph.trim() !== '')
    .map((paragraph) => `<p>${escapeHtml(paragraph.trim()).replace(/\n/g, '<br>')}</p>`)
    .join('');
}
