import type { ColumnChoices } from '@/services/exporting/find-columns';
import type { ExportView } from '@/services/exporting/find-exports';

const keyOf = (kind: ExportView['kind']) => `netting.columns.${kind}`;

/** In which columns this was written out the last time from this browser, as far as there are such columns still. */
export function lastColumns(kind: ExportView['kind'], { columns }: ColumnChoices): string[] | null {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(keyOf(kind)) ?? 'null');
    if (!Array.isArray(kept)) return null;
    const there = kept.filter((id): id is string => columns.some((one) => one.id === id));
    return there.length ? there : null;
  } catch {
    return null;
  }
}

export function keepColumns(kind: ExportView['kind'], columns: readonly string[]): void {
  try {
    localStorage.setItem(keyOf(kind), JSON.stringify(columns));
  } catch {
    // Not remembered: they are chosen anew.
  }
}
