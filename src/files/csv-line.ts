import { stringify } from 'csv-stringify/sync';
import { guarded } from '../core/table';
import type { Separator } from './table';

/** Rows of a CSV as RFC 4180 writes them; lines within a cell stand in quotes whatever ends a row. */
export const csvLines = (rows: readonly (readonly string[])[], separator: Separator): string =>
  stringify(
    rows.map((cells) => cells.map(guarded)),
    { delimiter: separator, record_delimiter: '\r\n', quoted_match: /[\r\n]/ },
  );
