import type { z } from 'zod';
import type { ParamsOf } from './endpoint';
import type { endpoints } from './endpoints';

type Declared = (typeof endpoints)[number];
type Sent<S> = S extends z.ZodType ? z.input<S> : undefined;

/**
 * The whole HTTP interface as types, inferred from the schemas that check it: `GET /items/{id}` → what it takes and
 * what it answers. Pages import it as a type alone.
 */
export type Interface = {
  [E in Declared as `${E['method']} ${E['path']}`]: {
    params: ParamsOf<E['path']>;
    query: Sent<E['query']>;
    body: Sent<E['body']>;
    answer: z.output<E['answer']>;
  };
};

export type Name = keyof Interface;
export type Answer<N extends Name> = Interface[N]['answer'];
