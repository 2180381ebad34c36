/**
 * The product of a sale by what its combination was called, such as `Mug, White`: one of the known products with which it
 * begins, the longest; else what stands before the last comma.
 * @param words what was sold, in words; null where the listing offers one thing alone
 * @param alone what that is
 */
export function soldProduct(words: string | null, products: readonly string[], alone: string): string {
  if (words === null || words === '') return alone;
  const known = products
    .filter((one) => words === one || words.startsWith(`${one}, `))
    .sort((a, b) => b.length - a.length)[0];
  if (known !== undefined) return known;
  const comma = words.lastIndexOf(', ');
  return comma === -1 ? words : words.slice(0, comma);
}
