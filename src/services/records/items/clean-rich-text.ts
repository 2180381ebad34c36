import sanitize from 'sanitize-html';

/** The editor's small set of tags; scripts, styles, images, addresses of odd kinds are removed. */
export const cleanRichText = (html: string): string =>
  sanitize(html, {
    allowedTags: ['p', 'br', 'ul', 'ol', 'li', 'b', 'strong', 'i', 'em', 'u', 'h2', 'h3', 'a'],
    allowedAttributes: { a: ['href'] },
    allowedSchemes: ['https', 'http', 'mailto'],
  }).trim();
