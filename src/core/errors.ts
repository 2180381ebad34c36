/**
 * Every error that a user can meet is one of these: a code that programs can rely on, a plain sentence,
 * the field it is about, and what mends it. Programming errors stay ordinary errors.
 */
export type ErrorCode =
  | 'not-found'
  | 'not-signed-in'
  | 'not-allowed'
  | 'invalid'
  | 'conflict'
  | 'sku-taken'
  | 'photo-unreadable'
  | 'photo-too-large'
  | 'market-refused'
  | 'market-unreachable'
  | 'market-busy'
  | 'market-locked'
  | 'market-warned'
  | 'market-auth'
  | 'market-blocked'
  | 'not-ready'
  | 'too-late'
  /** Something of our own house that nobody foresaw. */
  | 'unexpected';

export type ErrorFacts = {
  /** The field the error is about, as a field id of the item or listing. */
  field?: string;
  /** What the user can do about it, as a plain sentence. */
  fix?: string;
  /** When trying again makes sense, in milliseconds from now. */
  retryAfterMs?: number;
  /** Single problems, where there are several. */
  details?: { field: string; message: string }[];
};

export class NettingError extends Error {
  readonly code: ErrorCode;
  readonly facts: ErrorFacts;

  constructor(code: ErrorCode, message: string, facts: ErrorFacts = {}) {
    super(message);
    this.name = 'NettingError';
    this.code = code;
    this.facts = facts;
  }
}

/** What an error that nobody foresaw says at its root, in one line: database and network wrap it several times. */
export function rootWords(error: unknown): string {
  let root = error;
  while (root instanceof Error && root.cause) root = root.cause;
  const said = root instanceof Error ? root.message : String(root);
  return said.split('\n')[0]?.slice(0, 200) ?? '';
}

/** The HTTP status that tells a program what kind of error this is. */
export const statusOf: Record<ErrorCode, number> = {
  'not-found': 404,
  'not-signed-in': 401,
  'not-allowed': 403,
  invalid: 422,
  conflict: 409,
  'sku-taken': 409,
  'photo-unreadable': 422,
  'photo-too-large': 413,
  'market-refused': 502,
  'market-unreachable': 502,
  'market-busy': 503,
  'market-locked': 503,
  'market-warned': 503,
  'market-auth': 502,
  'market-blocked': 409,
  'not-ready': 409,
  'too-late': 409,
  unexpected: 500,
};

/** Errors after which the same request may succeed later without anybody mending something. */
export const isTransient = (code: ErrorCode): boolean =>
  code === 'market-unreachable' || code === 'market-busy' || code === 'market-locked' || code === 'market-warned';
