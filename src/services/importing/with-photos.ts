import type { CellPlan } from '../../core/table';
import type { StagedRow } from './changes-of';
import type { FetchedPhotos } from './fetch-photos';

const photoCells = (row: StagedRow): CellPlan[] =>
  (row.cells as CellPlan[]).filter((cell) => cell.column === 'photos' && Array.isArray(cell.to)); // written by `checkStep`
const refsOf = (cell: CellPlan): string[] => (Array.isArray(cell.to) ? cell.to.map(String) : []);

/** What a row calls the photos that it names. */
export const photoRefs = (row: StagedRow): string[] => photoCells(row).flatMap(refsOf);

/** A row with the hashes of the photos that its cells name, or why one of them is not there. */
export function withPhotos(row: StagedRow, fetched: FetchedPhotos): { row: StagedRow } | { fault: string } {
  const cells: CellPlan[] = [];
  for (const cell of row.cells as CellPlan[]) {
    const found = photoCells(row).includes(cell) ? refsOf(cell).map((ref) => fetched.get(ref)) : [];
    const missing = found.find((one) => !one || 'why' in one);
    if (found.length && missing !== undefined) return { fault: 'why' in missing ? missing.why : 'A photo is missing' };
    cells.push(found.length ? { ...cell, to: found.flatMap((one) => (one && 'hash' in one ? [one.hash] : [])) } : cell);
  }
  return { row: { ...row, cells } };
}
