import type { z } from 'zod';
import type { Actor } from '../services/access/actor';

type Schema = z.ZodType;
type Given<S> = S extends z.ZodType ? z.infer<S> : undefined;

/** One thing that can be done over HTTP. The same schemas check what comes in and describe it. */
export type Endpoint = {
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  /** Below /api/v1, with parameters in braces. */
  path: string;
  summary: string;
  tag: string;
  query?: Schema;
  body?: Schema;
  /** A picture is sent as the body itself. */
  takesPicture?: boolean;
  run(call: {
    actor: Actor;
    params: Record<string, number>;
    query: unknown;
    body: unknown;
    request: Request;
  }): Promise<unknown>;
};

/** Ties the types of query and body to their schemas. */
export function endpoint<Q extends Schema | undefined = undefined, B extends Schema | undefined = undefined>(
  definition: Omit<Endpoint, 'query' | 'body' | 'run'> & {
    query?: Q;
    body?: B;
    run(call: {
      actor: Actor;
      params: Record<string, number>;
      query: Given<Q>;
      body: Given<B>;
      request: Request;
    }): Promise<unknown>;
  },
): Endpoint {
  return definition as Endpoint; // query and body have been parsed with these very schemas before `run` is called
}
