/**
 * The longest beginning of a text that ends with a whole word and is no longer than `most` characters; of a single word
 * that is longer, its beginning.
 */
export function cutAtWord(text: string, most: number): string {
  const signs = [...text];
  if (signs.length <= most) return text;
  const within = signs.slice(0, most).join('');
  const isBetween = /\s/.test(signs[most] ?? ' ');
  const whole = isBetween ? within : within.replace(/\S+$/, '');
  return (whole.trim() === '' ? within : whole).replace(/[\s,;:–-]+$/, '');
}
