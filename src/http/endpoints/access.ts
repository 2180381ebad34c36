import { z } from 'zod';
import { createApiToken } from '../../services/access/create-api-token';
import { endpoint } from '../endpoint';

/** Who may come in. */
export const accessEndpoints = [
  endpoint({
    method: 'POST',
    path: '/tokens',
    tag: 'Access',
    summary: 'Make a token for a program; it is shown once',
    body: z.object({ name: z.string().trim().min(1).max(80) }).strict(),
    answer: z.object({ token: z.string() }),
    run: ({ actor, body }) => createApiToken(actor, body.name),
  }),
];
