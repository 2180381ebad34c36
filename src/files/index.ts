import { csv } from './csv';
import { json } from './json';
import { ndjson } from './ndjson';
import type { Format, FormatId } from './table';
import { xlsx } from './xlsx';
import { xml } from './xml';

/** The list of formats; a new one is a file of its own and a line here. */
export const formats: Record<FormatId, Format> = { csv, xlsx, json, ndjson, xml };

export * from './archive';
export { csvLines } from './csv-line';
export { readCsvText } from './csv-text';
export { keepStream } from './keep-stream';
export * from './layout';
export * from './limits';
export * from './table';
export { sheetNames } from './xlsx';
