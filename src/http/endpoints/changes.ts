import { z } from 'zod';
import { writeCells, writeCellsSchema, writtenCellsSchema } from '../../services/changes/commit/write-cells';
import { appliedEditSchema, applyEdit, applyEditSchema } from '../../services/changes/many/apply-edit';
import { commonValueSchema, commonValues, commonValuesSchema } from '../../services/changes/many/common-values';
import { editSchema, previewEditSchema } from '../../services/changes/many/edit-schema';
import { editConsequencesSchema } from '../../services/changes/preview/consequences';
import { countEdit, previewCounts } from '../../services/changes/preview/preview-counts';
import { previewRowSchema, previewRows } from '../../services/changes/preview/preview-rows';
import { setOverride, setOverrideSchema } from '../../services/changes/set-override';
import { takeOver, takeOverSchema } from '../../services/changes/take-over';
import { findRunChanges, findRunChangesSchema, runChangesSchema } from '../../services/changes/undo/find-run-changes';
import { undoneSchema, undoRun, undoRunSchema } from '../../services/changes/undo/undo-run';
import { updateItem, updateItemSchema } from '../../services/changes/update-item';
import { done, endpoint, streamed } from '../endpoint';
import { lineStream } from '../text-stream';

/** What changes items. */
export const changesEndpoints = [
  endpoint({
    method: 'PATCH',
    path: '/items/{id}',
    tag: 'Items',
    role: 'packer',
    summary: 'Change fields of an item',
    body: updateItemSchema,
    answer: z.object({ version: z.number() }),
    run: ({ actor, params, body }) => updateItem(actor, params.id, body),
  }),
  endpoint({
    method: 'PUT',
    path: '/items/{id}/listings/{account}',
    tag: 'Listings',
    role: 'seller',
    summary: 'Write a field for one account alone, or (without a value) follow the item again',
    body: setOverrideSchema,
    answer: done,
    run: ({ actor, params, body }) => setOverride(actor, params.id, params.account, body),
  }),
  endpoint({
    method: 'POST',
    path: '/cells',
    tag: 'Items',
    role: 'seller',
    summary: 'Write cells of the inventory, each with a value of its own, as one run',
    body: writeCellsSchema,
    answer: writtenCellsSchema,
    run: ({ actor, body }) => writeCells(actor, body),
  }),
  endpoint({
    method: 'POST',
    path: '/items/take-over',
    tag: 'Items',
    role: 'seller',
    summary: 'Take fields of one item over into others',
    body: takeOverSchema,
    answer: z.object({ changed: z.array(z.number()), unchanged: z.array(z.number()) }),
    run: ({ actor, body }) => takeOver(actor, body),
  }),
  streamed({
    method: 'POST',
    path: '/edits/common',
    tag: 'Bulk edits',
    role: 'seller',
    summary: 'What the chosen items have in common, a line for each field as it is found',
    media: 'application/x-ndjson',
    body: commonValuesSchema,
    answer: commonValueSchema,
    run: ({ body }) => lineStream(commonValues(body)),
  }),
  endpoint({
    method: 'POST',
    path: '/edits/preview',
    tag: 'Bulk edits',
    role: 'seller',
    summary: 'First items before and after, with the net per account; or as one account will get them',
    body: previewEditSchema,
    answer: z.object({ rows: z.array(previewRowSchema) }),
    run: async ({ body }) => ({ rows: await previewRows(body) }),
  }),
  endpoint({
    method: 'POST',
    path: '/edits/consequences',
    tag: 'Bulk edits',
    role: 'seller',
    summary: 'What a change does to all of its items and listings, counted',
    body: editSchema,
    answer: editConsequencesSchema,
    run: ({ body }) => previewCounts(body),
  }),
  streamed({
    method: 'POST',
    path: '/edits/counting',
    tag: 'Bulk edits',
    role: 'seller',
    summary: 'The same while it is counted: what has been found by now, a line each, the whole at last',
    media: 'application/x-ndjson',
    body: editSchema,
    answer: editConsequencesSchema,
    run: ({ body }) => lineStream(countEdit(body)),
  }),
  endpoint({
    method: 'POST',
    path: '/edits',
    tag: 'Bulk edits',
    role: 'seller',
    summary: 'Change fields of many items, step by step; save only, or save and send',
    body: applyEditSchema,
    answer: appliedEditSchema,
    run: ({ actor, body }) => applyEdit(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/runs/{id}/changes',
    tag: 'Bulk edits',
    role: 'seller',
    summary: 'What a bulk change made of its items: before it, by it, and now',
    query: findRunChangesSchema,
    answer: runChangesSchema,
    run: ({ params, query }) => findRunChanges(params.id, query),
  }),
  endpoint({
    method: 'POST',
    path: '/runs/{id}/undo',
    tag: 'Bulk edits',
    role: 'seller',
    summary: 'Take a bulk change back, whole or in part; or what took one back',
    body: undoRunSchema,
    answer: undoneSchema,
    run: ({ actor, params, body }) => undoRun(actor, params.id, body),
  }),
];
