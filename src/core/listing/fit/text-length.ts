/** Length as the marketplaces count it: Unicode code points, so an emoji of one code point counts one. */
export function textLength(text: string): number {
  // Without characters beyond the basic plane every code unit is a code point.
  if (!/[\uD800-\uDBFF]/.test(text)) return text.length;
  let count = 0;
  for (const _ of text) count++;
  return count;
}
