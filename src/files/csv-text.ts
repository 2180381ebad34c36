import { parse } from 'csv-parse/sync';
import { NettingError } from '../core/errors';

/** Rows of cells of a short CSV that was pasted or read by a page: apart by commas, semicolons or tabs. */
export function readCsvText(text: string): string[][] {
  try {
    return parse(text, {
      bom: true,
      delimiter: separatorOf(text),
      relax_column_count: true,
      skip_empty_lines: true,
      trim: true,
    }) as string[][]; // without columns each record is a list of cells
  } catch (error) {
    throw new NettingError('invalid', `This cannot be read as CSV: ${error instanceof Error ? error.message : ''}`, {
      field: 'text',
    });
  }
}

/** The separator that stands in the first line most often. */
function separatorOf(text: string): string {
  const [head = ''] = text.split(/\r?\n/, 1);
  const counts = [',', ';', '\t'].map((one) => ({ one, count: head.split(one).length }));
  return counts.sort((a, b) => b.count - a.count)[0]?.one ?? ',';
}
