import { z } from 'zod';
import { jsonSchema } from '../core/json';
import type { Endpoint } from './endpoint';
import { endpoints } from './endpoints';

type JsonSchema = { properties?: Record<string, unknown>; required?: string[] };

/**
 * A schema as JSON Schema: what comes in before defaults are filled in, what goes out as it is. Parts that JSON Schema
 * cannot say are left open, and so is any JSON, which would need references that do not lead anywhere from here.
 */
const schemaOf = (schema: z.ZodType, io: 'input' | 'output' = 'input'): JsonSchema =>
  z.toJSONSchema(schema, {
    io,
    unrepresentable: 'any',
    override: ({ zodSchema, jsonSchema: made }) => {
      if (Object.is(zodSchema, jsonSchema)) for (const key of Object.keys(made)) delete made[key as keyof typeof made]; // its own keys
    },
  }) as JsonSchema; // a JSON Schema has these parts, or fewer

/** What comes back: JSON, lines of a file, or events, each as the endpoint's answer says. */
const answered = ({ method, media, answer }: Endpoint) => ({
  [method === 'POST' && !media ? '201' : '200']: {
    description: 'Done',
    content: { [media ?? 'application/json']: { schema: schemaOf(answer, 'output') } },
  },
});

const problem = (description: string) => ({
  description,
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
});

const idempotencyKey = {
  name: 'Idempotency-Key',
  in: 'header',
  required: false,
  description:
    'Made up by you: sent again with the same key within a day, the same request is answered again and not done again.',
  schema: { type: 'string', pattern: '^[\\w-]{16,80}$' },
};

/** The HTTP interface as OpenAPI 3.1, made of the same schemas that check what comes in and type what goes out. */
export function openApi(baseUrl: string): object {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const one of endpoints as Endpoint[]) {
    const names = [...one.path.matchAll(/\{(\w+)\}/g)].map((hit) => hit[1]);
    const query = one.query ? schemaOf(one.query) : {};
    const place = paths[`/api/v1${one.path}`] ?? {};
    place[one.method.toLowerCase()] = {
      summary: one.summary,
      description: `Needs at least the role ${one.role}.`,
      tags: [one.tag],
      operationId: `${one.method.toLowerCase()}${one.path.replace(/[{}]/g, '').replace(/[/-](\w)/g, (_, letter: string) => letter.toUpperCase())}`,
      parameters: [
        ...names.map((name) => ({ name, in: 'path', required: true, schema: { type: 'integer' } })),
        ...Object.entries(query.properties ?? {}).map(([name, schema]) => ({
          name,
          in: 'query',
          required: query.required?.includes(name) ?? false,
          schema,
        })),
        ...(one.method === 'GET' || one.media || one.takesFile || one.takesPicture ? [] : [idempotencyKey]),
      ],
      ...(one.body
        ? { requestBody: { required: true, content: { 'application/json': { schema: schemaOf(one.body) } } } }
        : {}),
      ...(one.takesPicture
        ? { requestBody: { required: true, content: { 'image/jpeg': {}, 'image/png': {}, 'image/webp': {} } } }
        : {}),
      ...(one.takesFile ? { requestBody: { required: true, content: { 'application/octet-stream': {} } } } : {}),
      responses: {
        ...answered(one),
        401: problem('Not signed in'),
        403: problem('Not for this role'),
        404: problem('Not there'),
        409: problem('In the way of something else'),
        422: problem('Not valid'),
      },
    };
    paths[`/api/v1${one.path}`] = place;
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Netting',
      version: '1',
      description: 'Whatever the screens can do. Send an API token as `Authorization: Bearer net_…`.',
    },
    servers: [{ url: baseUrl }],
    security: [{ token: [] }],
    paths,
    components: {
      securitySchemes: { token: { type: 'http', scheme: 'bearer' } },
      schemas: {
        Problem: {
          type: 'object',
          description: 'RFC 9457',
          properties: {
            type: { type: 'string' },
            title: { type: 'string' },
            status: { type: 'integer' },
            code: { type: 'string' },
            field: { type: 'string' },
            fix: { type: 'string' },
            errors: {
              type: 'array',
              items: { type: 'object', properties: { field: { type: 'string' }, message: { type: 'string' } } },
            },
          },
          required: ['type', 'title', 'status', 'code'],
        },
      },
    },
  };
}
