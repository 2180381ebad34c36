import { type CombinationFieldId, combinationFieldIds, combinationFields } from '../field/combination-fields';
import type { Variation } from './variations';

/** The columns of the combinations' table that are written in, in their order. */
export const variationColumns = combinationFieldIds;
export type VariationColumn = CombinationFieldId;

/** A cell as a person reads and copies it. A difference of price carries its sign: `+2.00`. */
export const cellText = (row: Variation, column: VariationColumn, currency: string): string =>
  combinationFields[column].show(row[column], { currency });

/** Writes a cell from what was typed or pasted. `+2.00` and `-1.50` are differences of price, `12.90` is an own price. */
export function writeCell(
  row: Variation,
  column: VariationColumn,
  typed: string,
  currency: string,
): { row: Variation } | { problem: string } {
  const field = combinationFields[column];
  const read = field.read(typed.trim(), { currency });
  if ('problem' in read) return read;
  const fits = field.schema.safeParse(read.value);
  if (!fits.success) return { problem: fits.error.issues[0]?.message ?? 'This cannot stand here' };
  return { row: { ...row, [column]: read.value } };
}

export type Block = { top: number; left: number; bottom: number; right: number };
export type CellFault = { row: number; column: VariationColumn; message: string };

/**
 * Pastes tab-separated lines at a place. As in a spreadsheet, a single value fills the whole block that is chosen, a
 * single line repeats down it; what would fall outside the table is left out. Cells that cannot be read stay as they
 * were and are named.
 */
export function pasteBlock(
  rows: readonly Variation[],
  block: Block,
  text: string,
  currency: string,
): { rows: Variation[]; faults: CellFault[]; written: number } {
  const lines = text
    .replace(/\r\n?/g, '\n')
    .replace(/\n$/, '')
    .split('\n')
    .map((line) => line.split('\t'));
  const width = Math.max(...lines.map((line) => line.length));
  const down = Math.max(lines.length, block.bottom - block.top + 1);
  const across = Math.max(width, block.right - block.left + 1);
  const result = [...rows];
  const faults: CellFault[] = [];
  let written = 0;
  for (let y = 0; y < down; y++) {
    const line = lines[y % lines.length] ?? [];
    for (let x = 0; x < across; x++) {
      const at = block.top + y;
      const column = variationColumns[block.left + x];
      const row = result[at];
      if (!row || !column) continue;
      const value = line[x % width];
      if (value === undefined) continue;
      const outcome = writeCell(row, column, value, currency);
      if ('problem' in outcome) faults.push({ row: at, column, message: outcome.problem });
      else {
        result[at] = outcome.row;
        written++;
      }
    }
  }
  return { rows: result, faults, written };
}

/** The chosen block as tab-separated lines, to be pasted here or into a spreadsheet. */
export const copyBlock = (rows: readonly Variation[], block: Block, currency: string): string =>
  rows
    .slice(block.top, block.bottom + 1)
    .map((row) =>
      variationColumns
        .slice(block.left, block.right + 1)
        .map((column) => cellText(row, column, currency))
        .join('\t'),
    )
    .join('\n');

/** Fills the block with its first line, downwards. Stock numbers that end in digits count on. */
export function fillDown(rows: readonly Variation[], block: Block, currency: string): Variation[] {
  const first = rows[block.top];
  if (!first) return [...rows];
  const result = [...rows];
  for (let at = block.top + 1; at <= block.bottom; at++) {
    for (const column of variationColumns.slice(block.left, block.right + 1)) {
      const row = result[at];
      if (!row) continue;
      const text = cellText(first, column, currency);
      const outcome = writeCell(row, column, column === 'sku' ? counted(text, at - block.top) : text, currency);
      if ('row' in outcome) result[at] = outcome.row;
    }
  }
  return result;
}

const counted = (text: string, by: number): string =>
  text.replace(/(\d+)$/, (digits) => String(Number(digits) + by).padStart(digits.length, '0'));
