import { Readable } from 'node:stream';
import { z } from 'zod';
import { labelRequestSchema } from '../../core/label/request';
import { labelFile, labelPagesSchema, previewLabels } from '../../services/labels/print-labels';
import { printLabels } from '../../services/labels/print-now';
import { findPrintJobs, printJobSchema, stopPrint } from '../../services/labels/print-queue';
import { done, endpoint, streamed } from '../endpoint';
import { fileResponse } from '../file-response';

/** Labels of items, prices, shelves and commands: drawn, as a PDF, and printed. */
export const labelsEndpoints = [
  endpoint({
    method: 'POST',
    path: '/labels/preview',
    tag: 'Labels',
    role: 'packer',
    summary: 'Labels as they will be printed: how many, and the first pages',
    body: labelRequestSchema,
    answer: labelPagesSchema,
    run: ({ body }) => previewLabels(body),
  }),
  streamed({
    method: 'POST',
    path: '/labels/file',
    tag: 'Labels',
    role: 'packer',
    summary: 'The labels as a PDF',
    body: labelRequestSchema,
    media: 'application/octet-stream',
    answer: z.string(),
    run: async ({ body }) => {
      const { pdf, title } = await labelFile(body);
      return fileResponse(Readable.from([Buffer.from(pdf)]), { mime: 'application/pdf', name: `${title}.pdf` });
    },
  }),
  endpoint({
    method: 'POST',
    path: '/labels/print',
    tag: 'Labels',
    role: 'packer',
    summary: 'Put labels into the printer’s queue',
    body: labelRequestSchema,
    answer: z.object({ id: z.number(), count: z.number() }),
    run: ({ actor, body }) => printLabels(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/labels/queue',
    tag: 'Labels',
    role: 'packer',
    summary: 'What waits for the printer, and what it printed last',
    answer: z.object({ jobs: z.array(printJobSchema) }),
    run: async () => ({ jobs: await findPrintJobs() }),
  }),
  endpoint({
    method: 'POST',
    path: '/labels/queue/{id}/stop',
    tag: 'Labels',
    role: 'packer',
    summary: 'Take labels out of the printer’s queue',
    body: z.object({}).strict(),
    answer: done,
    run: ({ params }) => stopPrint(params.id),
  }),
];
