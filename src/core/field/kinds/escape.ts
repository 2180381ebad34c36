/** Writes text so that the signs named in `signs` and line ends keep apart what stands beside them. */
export const escapeText = (text: string, signs: string): string =>
  [...text]
    .map((sign) => (sign === '\n' ? '\\n' : sign === '\\' || signs.includes(sign) ? `\\${sign}` : sign))
    .join('');

/** Splits at a sign that is not escaped; the parts are trimmed and still escaped. */
export function splitText(text: string, sign: string): string[] {
  const parts: string[] = [];
  let part = '';
  for (let at = 0; at < text.length; at++) {
    const here = text.charAt(at);
    if (here === '\\') part += here + text.charAt(++at);
    else if (here === sign) {
      parts.push(part.trim());
      part = '';
    } else part += here;
  }
  return [...parts, part.trim()];
}

/** The text that was escaped. */
export const unescapeText = (text: string): string =>
  text.replace(/\\([\s\S])/g, (_all, sign: string) => (sign === 'n' ? '\n' : sign));
