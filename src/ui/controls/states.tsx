import type { ReactNode } from 'react';
import { ApiProblem } from '../data/api';

/** Nothing here yet: says what to do first. */
export function Empty({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="mx-auto max-w-lg px-6 py-16 text-center">
      <h2 className="mb-2 text-lg font-semibold">{title}</h2>
      <div className="quiet space-y-3">{children}</div>
    </div>
  );
}

export function Loading({ what }: { what: string }) {
  return (
    <p role="status" className="quiet px-4 py-8 text-center">
      Loading {what} …
    </p>
  );
}

export function Failed({ error, retry }: { error: unknown; retry?: () => void }) {
  const text = error instanceof Error ? error.message : 'Something went wrong';
  return (
    <div role="alert" className="m-4 flex items-center gap-3 rounded border border-error px-3 py-2">
      <span>
        {text}
        {error instanceof ApiProblem && error.fix ? ` – ${error.fix}` : ''}
      </span>
      {retry ? (
        <button type="button" className="btn btn-sm" onClick={retry}>
          Try again
        </button>
      ) : null}
    </div>
  );
}

export function PageHead({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-base-300 px-4 py-2">
      <h1 className="text-base font-semibold">{title}</h1>
      {children}
    </div>
  );
}
