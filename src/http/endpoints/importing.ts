import { z } from 'zod';
import { editConsequencesSchema } from '../../services/changes/preview/consequences';
import { beginCheck } from '../../services/importing/begin-check';
import { beginImport, beginImportSchema, begunImportSchema } from '../../services/importing/begin-import';
import { decideRows, decideRowsSchema } from '../../services/importing/decide-rows';
import { findImportRows, findImportRowsSchema, importRowsSchema } from '../../services/importing/find-import-rows';
import { findImport, findImports, importsSchema, importViewSchema } from '../../services/importing/find-imports';
import { importConsequences } from '../../services/importing/import-consequences';
import { importReport } from '../../services/importing/import-report';
import { receiveFile } from '../../services/importing/receive-file';
import { tieColumns, tieColumnsSchema } from '../../services/importing/tie-columns';
import { done, endpoint, streamed } from '../endpoint';
import { lineStream, textStream } from '../text-stream';

async function* bodyOf(request: Request): AsyncGenerator<Uint8Array> {
  const reader = request.body?.getReader();
  while (reader) {
    const { done: isOver, value } = await reader.read();
    if (isOver) return;
    yield value;
  }
}

/** The header X-File-Name, percent-encoded; one that is not is taken as it stands. */
const nameIn = (header: string | null): string => {
  try {
    return decodeURIComponent(header ?? '');
  } catch {
    return header ?? '';
  }
};

/** Reading files in: received, recognised, compared, decided, carried out, and what was refused. */
export const importingEndpoints = [
  endpoint({
    method: 'POST',
    path: '/imports',
    tag: 'Files',
    role: 'seller',
    summary: 'Read a file in: the file is the body, its name in the header X-File-Name, percent-encoded',
    takesFile: true,
    answer: z.object({ id: z.number() }),
    run: ({ actor, request }) =>
      receiveFile(actor, {
        name: nameIn(request.headers.get('x-file-name')),
        body: bodyOf(request),
      }),
  }),
  endpoint({
    method: 'GET',
    path: '/imports',
    tag: 'Files',
    role: 'seller',
    summary: 'Files that were read in lately',
    answer: importsSchema,
    run: () => findImports(),
  }),
  endpoint({
    method: 'GET',
    path: '/imports/{id}',
    tag: 'Files',
    role: 'seller',
    summary: 'How a file was understood, and what came of it',
    answer: importViewSchema,
    run: ({ params }) => findImport(params.id),
  }),
  endpoint({
    method: 'PATCH',
    path: '/imports/{id}',
    tag: 'Files',
    role: 'seller',
    summary: 'Say how the file is written, what its columns are, and what its numbers mean',
    body: tieColumnsSchema,
    answer: done,
    run: ({ params, body }) => tieColumns(params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/imports/{id}/check',
    tag: 'Files',
    role: 'seller',
    summary: 'Compare every row with what is there; nothing is changed',
    answer: z.object({ taskId: z.number(), finished: z.boolean() }),
    run: ({ actor, params }) => beginCheck(actor, params.id),
  }),
  endpoint({
    method: 'GET',
    path: '/imports/{id}/rows',
    tag: 'Files',
    role: 'seller',
    summary: 'Rows that say something else, by kind',
    query: findImportRowsSchema,
    answer: importRowsSchema,
    run: ({ params, query }) => findImportRows(params.id, query),
  }),
  endpoint({
    method: 'PATCH',
    path: '/imports/{id}/rows',
    tag: 'Files',
    role: 'seller',
    summary: 'Leave rows out, or say whose value holds',
    body: decideRowsSchema,
    answer: done,
    run: ({ params, body }) => decideRows(params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/imports/{id}/apply',
    tag: 'Files',
    role: 'seller',
    summary: 'Carry it out, as one run that can be taken back',
    body: beginImportSchema,
    answer: begunImportSchema,
    run: ({ actor, params, body }) => beginImport(actor, params.id, body),
  }),
  streamed({
    path: '/imports/{id}/consequences',
    tag: 'Files',
    role: 'seller',
    summary: 'What it comes to at each account, told as it is counted',
    answer: editConsequencesSchema,
    media: 'application/x-ndjson',
    run: ({ params }) => lineStream(importConsequences(params.id)),
  }),
  streamed({
    path: '/imports/{id}/report',
    tag: 'Files',
    role: 'seller',
    summary: 'Every refused row as it was, with a column that says why',
    answer: z.string(),
    media: 'text/csv',
    run: async ({ params }) => {
      const { name, parts } = await importReport(params.id);
      return textStream(parts, { type: 'text/csv', name });
    },
  }),
];
