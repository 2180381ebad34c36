'use client';

import { useInfiniteQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { EditConsequences } from '@/services/changes/preview/consequences';
import type { ImportView } from '@/services/importing/find-imports';
import { FurtherPages } from '@/ui/controls/further-pages';
import { Empty, Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import type { HeldBack } from '@/ui/data/consequences';
import { ComesTo } from './comes-to';
import { RowView } from './row-view';
import { WholeColumns } from './whole-columns';

const kinds = [
  ['change', 'Changes'],
  ['conflict', 'On both sides'],
  ['new', 'New'],
  ['refused', 'Refused'],
] as const;
type Kind = (typeof kinds)[number][0];

type Props = {
  file: ImportView;
  held: HeldBack;
  hold: (held: HeldBack) => void;
  tell: (counts: EditConsequences) => void;
};

/** Rows that say something else than the record, by kind; and what they come to at the marketplaces. */
export function Rows({ file, held, hold, tell }: Props) {
  const { counts, state } = file;
  const first = kinds.find(([kind]) => counts[kind] > 0)?.[0] ?? 'change';
  const [chosen, setChosen] = useState<Kind | null>(null);
  const [isWeighed, setWeighed] = useState(false);
  const [words, setWords] = useState('');
  const kind = chosen ?? first;
  const rows = useInfiniteQuery({
    queryKey: ['imports', file.id, 'rows', kind, state, words],
    queryFn: ({ pageParam }) =>
      api('GET /imports/{id}/rows', {
        params: { id: file.id },
        query: { kind, q: words || undefined, after: pageParam, limit: 50 },
      }),
    initialPageParam: 0,
    getNextPageParam: (last) => last.next,
    enabled: state === 'checked' || state === 'applied',
  });
  if (state === 'open')
    return (
      <Empty title="Look over the columns, then compare">
        <p>What every row would change stands here then, old and new side by side. Rows can be left out one by one.</p>
      </Empty>
    );
  if (state === 'checking' || state === 'applying') return <Loading what="what comes of it" />;
  return (
    <>
      <div className="flex gap-3 border-b border-base-300 px-4 py-1">
        <div role="tablist" aria-label="Kinds of rows" className="flex flex-1 gap-1">
          {kinds.map(([id, label]) => (
            <button
              key={id}
              type="button"
              role="tab"
              aria-selected={!isWeighed && kind === id}
              className={`btn btn-sm ${!isWeighed && kind === id ? '' : 'btn-ghost'}`}
              onClick={() => {
                setChosen(id);
                setWeighed(false);
              }}
            >
              {label} <span className="figures">{counts[id].toLocaleString('en')}</span>
            </button>
          ))}
          {state === 'checked' ? (
            <button
              type="button"
              role="tab"
              aria-selected={isWeighed}
              className={`btn btn-sm ml-auto ${isWeighed ? '' : 'btn-ghost'}`}
              onClick={() => setWeighed(true)}
            >
              At the marketplaces
            </button>
          ) : null}
        </div>
        <input
          type="search"
          aria-label="Words in the rows"
          placeholder="Words in the rows"
          className="input input-sm w-44"
          value={words}
          onChange={(event) => setWords(event.target.value)}
        />
      </div>
      {isWeighed ? (
        <div className="min-h-0 flex-1 overflow-auto" role="tabpanel" aria-label="At the marketplaces">
          <ComesTo importId={file.id} held={held} hold={hold} tell={tell} />
        </div>
      ) : null}
      <div
        hidden={isWeighed}
        className="min-h-0 flex-1 overflow-auto"
        role="tabpanel"
        aria-label={kinds.find(([id]) => id === kind)?.[1]}
      >
        {rows.isError ? <Failed error={rows.error} retry={() => void rows.refetch()} /> : null}
        {rows.isLoading ? <Loading what="rows" /> : null}
        {kind === 'conflict' && state === 'checked' ? (
          <WholeColumns file={file} rows={rows.data?.pages.flatMap((page) => page.rows) ?? []} />
        ) : null}
        <ul>
          {rows.data?.pages
            .flatMap((page) => page.rows)
            .map((row) => (
              <RowView key={row.line} file={file} row={row} />
            ))}
        </ul>
        {rows.data && rows.data.pages.every((page) => page.rows.length === 0) ? (
          <p className="quiet px-4 py-8 text-center">
            {counts[kind] === 0 ? 'No rows of this kind.' : 'No row of this kind holds these words.'}
          </p>
        ) : null}
        <FurtherPages pages={rows} words="Further rows" />
      </div>
    </>
  );
}
