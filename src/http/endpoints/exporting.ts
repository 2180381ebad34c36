import { z } from 'zod';
import { beginExport, beginExportSchema, begunExportSchema } from '../../services/exporting/begin-export';
import { exportFile, exportFileSchema } from '../../services/exporting/export-file';
import { columnChoicesSchema, findColumns } from '../../services/exporting/find-columns';
import { exportViewSchema, findExport, findExports } from '../../services/exporting/find-exports';
import { saveColumnSet, saveColumnSetSchema } from '../../services/exporting/save-column-set';
import { removeKept } from '../../services/records/removed/remove-kept';
import { done, endpoint, streamed } from '../endpoint';
import { fileResponse } from '../file-response';

/** Writing out: which columns there are, what is written, and files of it. */
export const exportingEndpoints = [
  endpoint({
    method: 'GET',
    path: '/file-columns',
    tag: 'Files',
    role: 'seller',
    summary: 'Every column that a file may have, and the kept sets of columns',
    answer: columnChoicesSchema,
    run: () => findColumns(),
  }),
  endpoint({
    method: 'POST',
    path: '/column-sets',
    tag: 'Files',
    role: 'seller',
    summary: 'Keep columns under a name',
    body: saveColumnSetSchema,
    answer: z.object({ id: z.number() }),
    run: ({ actor, body }) => saveColumnSet(actor, body),
  }),
  endpoint({
    method: 'DELETE',
    path: '/column-sets/{id}',
    tag: 'Files',
    role: 'seller',
    summary: 'Forget a kept set of columns',
    answer: done,
    run: ({ actor, params }) => removeKept(actor, 'columns', params.id),
  }),
  endpoint({
    method: 'POST',
    path: '/exports',
    tag: 'Files',
    role: 'seller',
    summary: 'Write out what is chosen; its rows are remembered',
    body: beginExportSchema,
    answer: begunExportSchema,
    run: ({ actor, body }) => beginExport(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/exports',
    tag: 'Files',
    role: 'seller',
    summary: 'What was written out lately',
    answer: z.object({ exports: z.array(exportViewSchema) }),
    run: () => findExports(),
  }),
  endpoint({
    method: 'GET',
    path: '/exports/{id}',
    tag: 'Files',
    role: 'seller',
    summary: 'One export',
    answer: exportViewSchema,
    run: ({ params }) => findExport(params.id),
  }),
  streamed({
    path: '/exports/{id}/file',
    tag: 'Files',
    role: 'seller',
    summary: 'A file of it, as CSV, XLSX, JSON, NDJSON or XML',
    query: exportFileSchema,
    answer: z.string(),
    media: 'application/octet-stream',
    run: async ({ params, query }) => {
      const { format, name, stream } = await exportFile(params.id, query);
      return fileResponse(stream, { mime: format.mime, name });
    },
  }),
];
