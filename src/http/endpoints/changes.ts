import { z } from 'zod';
import { applyEdit, applyEditSchema } from '../../services/changes/apply-edit';
import { editSchema } from '../../services/changes/edit-schema';
import { previewCounts } from '../../services/changes/preview-counts';
import { previewRows } from '../../services/changes/preview-rows';
import { undoRun, undoRunSchema } from '../../services/changes/undo-run';
import { endListings, endListingsSchema } from '../../services/listings/end-listings';
import { planPublish } from '../../services/listings/plan-publish';
import { publish } from '../../services/listings/publish';
import { publishSchema } from '../../services/listings/publish-schema';
import { endpoint } from '../endpoint';

const id = (params: Record<string, number>) => z.number().parse(params.id);

export const changeEndpoints = [
  endpoint({
    method: 'POST',
    path: '/edits/preview',
    tag: 'Bulk edits',
    summary: 'First items before and after, with the net per account',
    body: editSchema,
    run: async ({ body }) => ({ rows: await previewRows(body) }),
  }),
  endpoint({
    method: 'POST',
    path: '/edits/consequences',
    tag: 'Bulk edits',
    summary: 'What a change does to all of its items and listings, counted',
    body: editSchema,
    run: ({ body }) => previewCounts(body),
  }),
  endpoint({
    method: 'POST',
    path: '/edits',
    tag: 'Bulk edits',
    summary: 'Change price or stock of many items, save only or save and send',
    body: applyEditSchema,
    run: ({ actor, body }) => applyEdit(actor, body),
  }),
  endpoint({
    method: 'POST',
    path: '/runs/{id}/undo',
    tag: 'Bulk edits',
    summary: 'Take a whole bulk change back',
    body: undoRunSchema,
    run: ({ actor, params, body }) => undoRun(actor, id(params), body),
  }),
  endpoint({
    method: 'POST',
    path: '/publish/plan',
    tag: 'Publishing',
    summary: 'What would happen per item and account, what it costs, what is missing',
    body: publishSchema,
    run: ({ body }) => planPublish(body),
  }),
  endpoint({
    method: 'POST',
    path: '/publish',
    tag: 'Publishing',
    summary: 'Send listings in the background',
    body: publishSchema,
    run: ({ actor, body }) => publish(actor, body),
  }),
  endpoint({
    method: 'POST',
    path: '/listings/end',
    tag: 'Publishing',
    summary: 'End listings',
    body: endListingsSchema,
    run: ({ actor, body }) => endListings(actor, body),
  }),
];
