import type { ReactNode } from 'react';
import { ApiProblem } from '../data/api';
import { Link } from './link';

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

/** What could not be shown, and the way on. */
export function Failed({ error, retry }: { error: unknown; retry?: () => void }) {
  const text = error instanceof Error ? error.message : 'Something went wrong';
  const isGone = error instanceof ApiProblem && error.status === 404;
  return (
    <div role="alert" className="m-4 flex items-center gap-3 rounded border border-error px-3 py-2">
      <span>
        {text}
        {error instanceof ApiProblem && error.fix ? ` – ${error.fix}` : ''}
      </span>
      {isGone ? <ToInventory /> : null}
      {retry && !isGone ? (
        <button type="button" className="btn btn-sm" onClick={retry}>
          Try again
        </button>
      ) : null}
    </div>
  );
}

/** There is nothing under this address, and where one can go from here. */
export function NotThere() {
  return (
    <Empty title="There is nothing here">
      <p>The address is not one of Netting’s, or what stood here is gone.</p>
      <ToInventory />
    </Empty>
  );
}

const ToInventory = () => (
  <Link href="/" className="btn btn-sm">
    To the inventory
  </Link>
);

export function PageHead({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-base-300 px-4 py-2">
      <h1 className="text-base font-semibold">{title}</h1>
      {children}
    </div>
  );
}
