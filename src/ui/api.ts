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

type Options = {
  method?: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  body?: unknown;
  signal?: AbortSignal;
  keepalive?: boolean;
};

/** Calls Netting's own HTTP interface. */
export async function api<T>(path: string, { method = 'GET', body, signal, keepalive }: Options = {}): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api/v1${path}`, {
      method,
      signal,
      keepalive,
      headers: body === undefined ? undefined : { 'content-type': 'application/json' },
      body: body === undefined ? undefined : JSON.stringify(body),
    });
  } catch (error) {
    if (signal?.aborted) throw error;
    throw new ApiProblem(0, { title: 'Netting cannot be reached. Nothing is lost; it tries again', code: 'offline' });
  }
  if (response.status === 401 && typeof window !== 'undefined')
    window.location.href = `/sign-in?next=${encodeURIComponent(window.location.pathname + window.location.search)}`;
  const parsed: unknown = await response.json().catch(() => ({}));
  if (!response.ok) throw new ApiProblem(response.status, parsed as ConstructorParameters<typeof ApiProblem>[1]); // problem details, RFC 9457
  return parsed as T; // the shape that the endpoint's service returns
}

export const photoUrl = (hash: string, size: 'thumb' | 'view' | 'market'): string => `/api/photos/${hash}-${size}`;
