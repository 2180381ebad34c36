/**
 * Our stock number in the letters a marketplace takes (letters, digits, hyphens): other signs become hyphens, too short
 * ones are filled with a leading `N-`. Where a number is never taken twice, further makings carry `-2`, `-3` …
 * @param timesMade how often a listing was made there before
 */
export function fitStockNumber(sku: string, rule: { min: number; max: number; once: boolean }, timesMade = 0): string {
  const clean = sku.replace(/[^A-Za-z0-9-]+/g, '-').replace(/^-+|-+$/g, '');
  const suffix = rule.once && timesMade > 0 ? `-${timesMade + 1}` : '';
  const long =
    clean.length + suffix.length < rule.min
      ? `N-${'0'.repeat(Math.max(0, rule.min - clean.length - suffix.length - 2))}${clean}`
      : clean;
  return `${long.slice(0, rule.max - suffix.length)}${suffix}`;
}
