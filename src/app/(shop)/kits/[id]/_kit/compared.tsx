'use client';

import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import type { Answer } from '@/http/interface';
import { Dialog } from '@/ui/controls/dialog';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';

export type Compared = Answer<'POST /kits/{id}/compared'>;

/** What is asked of both actions on the stock. */
export type StockAction = {
  marked: number[];
  /** How many of the marked ones belong to the other action. */
  strangers: number;
  close: () => void;
  /** The other action. */
  instead: () => void;
};

type Props = {
  title: string;
  kitId: number;
  marked: number[];
  close: () => void;
  children: (data: Compared) => ReactNode;
};

/** A dialog on lots as they are compared with the stock at this moment. */
export function ComparedDialog({ title, kitId, marked, close, children }: Props) {
  const compared = useQuery({
    queryKey: ['kit-compared', kitId, marked.join()],
    queryFn: () =>
      api('POST /kits/{id}/compared', { params: { id: kitId }, body: { lots: marked.length ? marked : undefined } }),
    staleTime: 0,
    gcTime: 0,
  });
  return (
    <Dialog title={title} close={close} wide>
      {compared.isPending ? <Loading what="what is in stock" /> : null}
      {compared.error ? <Failed error={compared.error} retry={() => void compared.refetch()} /> : null}
      {compared.data ? <div className="space-y-3">{children(compared.data)}</div> : null}
    </Dialog>
  );
}

/** The table of such a dialog. */
export function ComparedTable({ label, heads, children }: { label: string; heads: string[]; children: ReactNode }) {
  return (
    <div className="max-h-[46vh] overflow-auto rounded border border-base-300">
      <table
        className="w-full text-[13px] [&_td]:border-t [&_td]:border-base-300 [&_td]:px-3 [&_td]:py-1 [&_th]:px-3 [&_th]:py-1.5"
        aria-label={label}
      >
        <thead className="sticky top-0 bg-base-200">
          <tr>
            {heads.map((head) => (
              <th key={head} className={head === 'Pieces' || head === 'Price' ? 'text-right' : 'text-left'}>
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>{children}</tbody>
      </table>
    </div>
  );
}

/** What stands there, struck out where it becomes another. */
export function Becomes({ from, to }: { from: string; to: string }) {
  return (
    <>
      {from && from !== to ? <s className="quiet mr-1">{from}</s> : null}
      {to || '–'}
    </>
  );
}

/** Why an action refuses, and the two ways over. */
export function WaysOver({
  problem,
  busy,
  ways,
}: {
  problem: string;
  busy: boolean;
  ways: [words: string, go: () => void][];
}) {
  if (!problem) return null;
  return (
    <div role="alert" className="space-y-2 rounded border border-error p-2">
      <p>{problem}</p>
      <div className="flex gap-2">
        {ways.map(([words, go]) => (
          <button key={words} type="button" className="btn btn-sm" disabled={busy} onClick={go}>
            {words}
          </button>
        ))}
      </div>
    </div>
  );
}
