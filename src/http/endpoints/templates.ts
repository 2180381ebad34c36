import { z } from 'zod';
import { findTemplates, templateViewSchema } from '../../services/listings/templates/find-templates';
import { saveTemplate } from '../../services/listings/templates/save-template';
import { templateInputSchema } from '../../services/listings/templates/template-input';
import { triedTemplateSchema, tryTemplate } from '../../services/listings/templates/try-template';
import { removeKept } from '../../services/records/removed/remove-kept';
import { done, endpoint } from '../endpoint';

const tryIt = templateInputSchema.extend({ id: z.number().int().positive().nullable().default(null) });

/** Templates. */
export const templatesEndpoints = [
  endpoint({
    method: 'GET',
    path: '/templates',
    tag: 'Templates',
    role: 'seller',
    summary: 'Templates with their conditions',
    answer: z.object({ templates: z.array(templateViewSchema) }),
    run: () => findTemplates(),
  }),
  endpoint({
    method: 'POST',
    path: '/templates',
    tag: 'Templates',
    role: 'seller',
    summary: 'Make a template',
    body: templateInputSchema,
    answer: z.object({ id: z.number(), version: z.number() }),
    run: ({ actor, body }) => saveTemplate(actor, null, body),
  }),
  endpoint({
    method: 'PUT',
    path: '/templates/{id}',
    tag: 'Templates',
    role: 'seller',
    summary: 'Change a template, for all items or for new ones only',
    body: templateInputSchema,
    answer: z.object({ id: z.number(), version: z.number() }),
    run: ({ actor, params, body }) => saveTemplate(actor, params.id, body),
  }),
  endpoint({
    method: 'DELETE',
    path: '/templates/{id}',
    tag: 'Templates',
    role: 'seller',
    summary: 'Remove a template; listings are computed without it',
    answer: done,
    run: ({ actor, params }) => removeKept(actor, 'template', params.id),
  }),
  endpoint({
    method: 'POST',
    path: '/templates/try',
    tag: 'Templates',
    role: 'seller',
    summary: 'Which listings a template would change, and how; nothing is kept',
    body: tryIt,
    answer: triedTemplateSchema,
    run: ({ body: { id: known, ...input } }) => tryTemplate(known, input),
  }),
];
