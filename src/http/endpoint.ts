import { z } from 'zod';
import type { Role } from '../core/access';
import type { Actor } from '../services/access/actor';
import type { Who } from '../services/access/identify-actor';

type Schema = z.ZodType;
type Media = 'text/csv' | 'application/octet-stream' | 'text/event-stream' | 'application/x-ndjson';
type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
type Given<S> = S extends Schema ? z.output<S> : undefined;

type Named<P extends string> = P extends `${string}{${infer Name}}${infer Rest}` ? Name | Named<Rest> : never;
/** What stands in braces in a path: positive whole numbers. */
export type ParamsOf<P extends string> = { [Name in Named<P>]: number };

/** The answer of what has nothing to tell but that it is done. */
export const done = z.object({ ok: z.literal(true) });
/** What an endpoint returns: what its answer schema says, or anything where it only says that it is done. */
type Answered<A extends Schema> = A extends typeof done ? unknown : z.output<A>;

type Call<P extends string, Q, B> = {
  actor: Actor;
  /** The same person or program, with what it may do and where it is signed in. */
  who: Who;
  params: ParamsOf<P>;
  query: Given<Q>;
  body: Given<B>;
  request: Request;
};

type Described<M, P, Q, B, A> = {
  method: M;
  /** Below /api/v1, with parameters in braces. */
  path: P;
  summary: string;
  tag: string;
  /** The least role that it takes. */
  role: Role;
  query?: Q;
  body?: B;
  /** What comes back. Tests hold every answer to it, and the pages' types are inferred from it. */
  answer: A;
  /** What was paid stays as it is kept when it comes from somebody who does not see it: the service sees to that. */
  keepsCosts?: true;
  /** What it answers is shown once and kept nowhere: a key, or a link that is one. */
  isShownOnce?: true;
  /** A picture is sent as the body itself. */
  takesPicture?: boolean;
  /** A file of any kind is sent as the body itself. */
  takesFile?: boolean;
};

/** One thing that can be done over HTTP. The same schemas check what comes in, describe it, and type the pages. */
export type Endpoint<
  M extends Method = Method,
  P extends string = string,
  Q extends Schema | undefined = Schema | undefined,
  B extends Schema | undefined = Schema | undefined,
  A extends Schema = Schema,
> = Described<M, P, Q, B, A> & {
  /** How it is told when it is not JSON: lines of a file, or events one after the other, each as the answer says. */
  media?: Media;
  run(call: Call<P, Q, B>): Promise<unknown>;
};

/** Something that answers with JSON. */
export const endpoint = <
  M extends Method,
  P extends string,
  A extends Schema,
  Q extends Schema | undefined = undefined,
  B extends Schema | undefined = undefined,
>(
  definition: Described<M, P, Q, B, A> & { run(call: Call<P, Q, B>): Promise<Answered<A>> },
): Endpoint<M, P, Q, B, A> => definition;

/** Something that answers with a stream; `answer` says what one line or event holds. */
export const streamed = <
  P extends string,
  A extends Schema,
  M extends 'GET' | 'POST' = 'GET',
  Q extends Schema | undefined = undefined,
  B extends Schema | undefined = undefined,
>(
  definition: Omit<Described<M, P, Q, B, A>, 'method'> & {
    /** `GET` when left out. */
    method?: M;
    media: Media;
    run(call: Call<P, Q, B>): Promise<Response>;
  },
  // as long as it is left out, M is what it is left out for
): Endpoint<M, P, Q, B, A> => ({ ...definition, method: definition.method ?? ('GET' as M) });
