import pino from 'pino';
import { ZodError } from 'zod';
import { NettingError, statusOf } from '../core/errors';

// Through the process's own stream: inside the web server pino's direct writing to the file descriptor is not seen.
const log = pino({ name: 'web' }, { write: (line: string) => void process.stdout.write(line) });

const problem = (status: number, body: Record<string, unknown>, headers: Record<string, string> = {}): Response =>
  new Response(JSON.stringify({ type: 'about:blank', status, ...body }), {
    status,
    headers: { 'content-type': 'application/problem+json', 'cache-control': 'no-store', ...headers },
  });

/** A long list that is wrong throughout is not told whole. */
const mostErrors = 50;

/** Any error as RFC 9457 problem details. What a user can mend is said; what is our own fault is logged and not dressed up. */
export function problemOf(error: unknown): Response {
  if (error instanceof NettingError) {
    const { field, fix, details, retryAfterMs } = error.facts;
    const headers: Record<string, string> = retryAfterMs
      ? { 'retry-after': String(Math.ceil(retryAfterMs / 1_000)) }
      : {};
    return problem(
      statusOf[error.code],
      { title: error.message, code: error.code, field, fix, errors: details },
      headers,
    );
  }
  if (error instanceof ZodError) {
    const errors = error.issues
      .slice(0, mostErrors)
      .map((issue) => ({ field: issue.path.join('.'), message: issue.message }));
    const first = errors[0];
    return problem(422, {
      title: first ? `${first.field ? `${first.field}: ` : ''}${first.message}` : 'This is not valid',
      code: 'invalid',
      field: first?.field,
      errors,
    });
  }
  log.error(
    {
      error:
        error instanceof Error
          ? { message: error.message, stack: error.stack, cause: String(error.cause) }
          : String(error),
    },
    'request failed',
  );
  return problem(500, { title: 'Something went wrong in Netting; it has been noted in the log', code: 'internal' });
}
