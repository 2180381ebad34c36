import { stringify } from 'csv-stringify/sync';
import { guarded } from '../core/table';
import type { Separator } from './table';

/** One row of a CSV as RFC 4180 writes it; lines within a cell stand in quotes whatever ends a row. */
export const csvLine = (cells: readonly string[], separator: Separator): string =>
  stringify([cells.map(guarded)], { delimiter: separator, record_delimiter: '\r\n', quoted_match: /[\r\n]/ });
