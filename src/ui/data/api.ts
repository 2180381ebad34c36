import type { Answer, Interface, Name } from '@/http/interface';
import { newKey } from './new-key';

/** A refused request: what is wrong in plain words, where, and what mends it. */
export class ApiProblem extends Error {
  readonly status: number;
  readonly code: string;
  readonly field?: string;
  readonly fix?: string;
  readonly errors: { field: string; message: string }[];

  constructor(
    status: number,
    body: {
      title?: string;
      code?: string;
      field?: string;
      fix?: string;
      errors?: { field: string; message: string }[];
    },
  ) {
    super(body.title ?? `The request was refused (${status})`);
    this.status = status;
    this.code = body.code ?? 'unknown';
    this.field = body.field;
    this.fix = body.fix;
    this.errors = body.errors ?? [];
  }
}

type Optional<K extends string, T> = { [Key in K]?: T };
/** A part of a request: needed where something in it is needed, left out where the endpoint takes none. In brackets, so that a body of several forms stays one type. */
type Part<K extends string, T> = [T] extends [undefined]
  ? Optional<K, undefined>
  : Record<string, never> extends T
    ? Optional<K, T>
    : { [Key in K]: T };

type Requests = {
  [N in Name]: Part<'params', Interface[N]['params']> &
    Part<'query', Interface[N]['query']> &
    Part<'body', Interface[N]['body']> & { signal?: AbortSignal; keepalive?: boolean };
};
/** What an endpoint takes, besides a way to call it off. */
export type RequestOf<N extends Name> = Requests[N];
/** Nothing has to be given where nothing is needed. */
type Arguments = {
  [N in Name]: Record<string, never> extends Requests[N] ? [given?: Requests[N]] : [given: Requests[N]];
};

type Loose = {
  params?: Record<string, number>;
  query?: Record<string, unknown>;
  body?: unknown;
  signal?: AbortSignal;
  keepalive?: boolean;
};

/** Below /api/v1: the path with its numbers, and what of the query is said at all. */
export function addressOf(path: string, { params = {}, query = {} }: Pick<Loose, 'params' | 'query'>): string {
  const search = new URLSearchParams();
  for (const [name, value] of Object.entries(query))
    if (value !== undefined && value !== null && value !== '') search.set(name, String(value));
  const named = path.replace(/\{(\w+)\}/g, (_, name: string) => String(params[name]));
  return search.size > 0 ? `${named}?${search}` : named;
}

/** Keys of commands whose answer did not come, by what was asked: asked once more, it is the same command. */
const unanswered = new Map<string, string>();
const mostUnanswered = 100;

/** A key of a command: that of before where the very same was asked and not answered. */
function keyOf(asked: string): string {
  const key = unanswered.get(asked) ?? newKey();
  unanswered.delete(asked);
  return key;
}

async function request(name: Name, { body, signal, keepalive, ...where }: Loose): Promise<Response> {
  const [method, path = ''] = name.split(' ');
  const address = `/api/v1${addressOf(path, where)}`;
  const text = body === undefined ? undefined : JSON.stringify(body);
  const asked = `${method} ${address} ${text}`;
  const key = method === 'GET' ? null : keyOf(asked);
  let response: Response;
  try {
    response = await fetch(address, {
      method,
      signal,
      keepalive,
      headers: {
        ...(text === undefined ? {} : { 'content-type': 'application/json' }),
        ...(key === null ? {} : { 'idempotency-key': key }),
      },
      body: text,
    });
  } catch (error) {
    if (key !== null && unanswered.size < mostUnanswered) unanswered.set(asked, key);
    if (signal?.aborted) throw error;
    throw new ApiProblem(0, { title: 'Netting cannot be reached. Nothing is lost; it tries again', code: 'offline' });
  }
  if (response.status === 401 && typeof window !== 'undefined')
    window.location.href = `/sign-in?next=${encodeURIComponent(window.location.pathname + window.location.search)}`;
  if (response.ok) return response;
  const problem: unknown = await response.json().catch(() => ({}));
  throw new ApiProblem(response.status, problem as ConstructorParameters<typeof ApiProblem>[1]); // problem details, RFC 9457
}

/** Calls Netting's own HTTP interface; what it takes and answers is known from the endpoints' own schemas. */
export async function api<N extends Name>(name: N, ...given: Arguments[N]): Promise<Answer<N>> {
  const [first = {}] = given as [Loose?]; // every request has these parts, or fewer
  const response = await request(name, first);
  return (await response.json().catch(() => ({}))) as Answer<N>; // tests hold every answer to the schema that this type is inferred from
}

/** The same of what answers line by line: each line as it comes. */
export async function* apiLines<N extends Name>(name: N, ...given: Arguments[N]): AsyncGenerator<Answer<N>> {
  const [first = {}] = given as [Loose?]; // every request has these parts, or fewer
  const response = await request(name, first);
  if (!response.body) return;
  let rest = '';
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
  for (let part = await reader.read(); !part.done; part = await reader.read()) {
    const lines = (rest + part.value).split('\n');
    rest = lines.pop() ?? '';
    for (const line of lines) yield JSON.parse(line) as Answer<N>; // as above
  }
}

export const photoUrl = (hash: string, size: 'thumb' | 'view' | 'market'): string => `/api/photos/${hash}-${size}`;
