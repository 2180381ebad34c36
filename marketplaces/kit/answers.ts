import type { Context } from 'hono';
import type { ContentfulStatusCode } from 'hono/utils/http-status';
import type { Market, Problem } from './types';

/** An error in the marketplace's own manner: problem details with pointers, or a bare sentence. */
export function refuse(
  c: Context,
  market: Market,
  status: ContentfulStatusCode,
  title: string,
  problems: Problem[] = [],
  headers: Record<string, string> = {},
): Response {
  if (market.errors === 'sentence') {
    return c.text(problems[0]?.detail ?? title, status, headers);
  }
  return c.body(
    JSON.stringify({ type: 'about:blank', title, status, detail: problems[0]?.detail ?? title, errors: problems }),
    status,
    { 'content-type': 'application/problem+json', ...headers },
  );
}
