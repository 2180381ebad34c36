/** Which column says of which item a row is: our own number first, then the stock number, the barcode, theirs. */
export function tiedBy(ties: readonly (string | null)[]): string | null {
  const known = ['row.item', 'sku', 'barcode'].find((id) => ties.includes(id));
  return known ?? ties.find((id) => id?.endsWith('.remote.number')) ?? null;
}
