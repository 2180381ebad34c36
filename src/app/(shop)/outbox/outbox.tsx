'use client';

import { keepPreviousData, useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import Link from 'next/link';
import { parseAsInteger, parseAsStringLiteral, useQueryStates } from 'nuqs';
import type { OutboxJob, RunProgress } from '@/services/outbox';
import type { Undone } from '@/services/undo-run';
import { api, photoUrl } from '@/ui/api';
import { When } from '@/ui/format';
import { useNotice } from '@/ui/providers';
import { Empty, Failed, Loading, PageHead } from '@/ui/states';

const states = ['waiting', 'running', 'done', 'failed', 'skipped'] as const;
const stateWords: Record<(typeof states)[number], string> = {
  waiting: 'Waiting',
  running: 'Under way',
  done: 'Done',
  failed: 'Failed',
  skipped: 'Taken out',
};
const outcomeWords: Record<string, string> = {
  created: 'Listed',
  changed: 'Changed',
  ended: 'Ended',
  nothing: 'Nothing to do',
};
const kindWords: Record<string, string> = { edit: 'Change', publish: 'Publish', end: 'End', undo: 'Undo' };

/** What is planned, under way, done and failed, by run and by item. */
export function Outbox() {
  const [query, setQuery] = useQueryStates(
    { run: parseAsInteger, state: parseAsStringLiteral(states) },
    { history: 'replace' },
  );
  const client = useQueryClient();
  const notice = useNotice();
  const search = new URLSearchParams(
    Object.entries(query).flatMap(([name, value]) => (value === null ? [] : [[name, String(value)]])),
  ).toString();
  const runs = useQuery({
    queryKey: ['runs'],
    queryFn: () => api<{ runs: RunProgress[] }>('/runs'),
    refetchInterval: 1_500,
  });
  const jobs = useInfiniteQuery({
    queryKey: ['jobs', search],
    queryFn: ({ pageParam, signal }) =>
      api<{ jobs: OutboxJob[]; next: number | null }>(`/jobs?${search}${pageParam ? `&before=${pageParam}` : ''}`, {
        signal,
      }),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next ?? undefined,
    placeholderData: keepPreviousData,
    refetchInterval: (q) => ((q.state.data?.pages.length ?? 0) <= 2 ? 1_500 : false),
  });
  const all = jobs.data?.pages.flatMap((page) => page.jobs) ?? [];
  const run = runs.data?.runs.find((one) => one.id === query.run);
  const act = async (path: string, body: unknown, said: string) => {
    try {
      await api(path, { method: 'POST', body });
      notice(said);
    } catch (error) {
      notice(error instanceof Error ? error.message : 'That did not work');
    }
    await client.invalidateQueries();
  };
  const undo = async (one: RunProgress) => {
    try {
      const undone = await api<Undone>(`/runs/${one.id}/undo`, { method: 'POST', body: { send: true } });
      notice(
        `${undone.items} items are as they were${undone.changedSince.length ? `, ${undone.changedSince.length} were changed since and stay` : ''}`,
      );
    } catch (error) {
      notice(error instanceof Error ? error.message : 'That did not work');
    }
    await client.invalidateQueries();
  };
  return (
    <>
      <PageHead title="Outbox">
        <fieldset className="flex gap-1">
          <legend className="sr-only">State of the jobs</legend>
          {[null, ...states].map((state) => (
            <button
              key={state ?? 'all'}
              type="button"
              aria-pressed={query.state === state}
              className={`btn btn-sm ${query.state === state ? 'bg-base-300' : 'btn-ghost'}`}
              onClick={() => void setQuery({ state })}
            >
              {state ? stateWords[state] : 'All'}
            </button>
          ))}
        </fieldset>
        {query.run ? (
          <button type="button" className="btn btn-sm" onClick={() => void setQuery({ run: null })}>
            Only run {query.run} ×
          </button>
        ) : null}
      </PageHead>
      {run ? <RunLine run={run} /> : null}
      <div className="grid grid-cols-[17rem_minmax(0,1fr)] max-lg:grid-cols-1">
        <section aria-label="Runs" className="border-r border-base-300">
          {runs.isPending ? <Loading what="the runs" /> : null}
          {runs.isError ? <Failed error={runs.error} /> : null}
          <ol>
            {runs.data?.runs.map((one) => (
              <li
                key={one.id}
                className={`border-b border-base-300/60 px-4 py-1.5 ${one.id === query.run ? 'bg-base-200' : ''}`}
              >
                <button
                  type="button"
                  className="block w-full text-left"
                  onClick={() => void setQuery({ run: one.id === query.run ? null : one.id })}
                >
                  <span className="block truncate">
                    <span className="quiet">{kindWords[one.kind]}</span> {one.title}
                  </span>
                  <span className="quiet block text-[12px]">
                    <When at={one.createdAt} />, {one.byName}
                    {one.waiting + one.running > 0 ? `, ${one.waiting + one.running} to go` : ''}
                  </span>
                </button>
                {one.kind === 'edit' && !one.undoneBy ? (
                  <button type="button" className="text-[12px] underline" onClick={() => void undo(one)}>
                    Undo {one.itemCount.toLocaleString('en')} items and send
                  </button>
                ) : null}
                {one.undoneBy ? <span className="quiet text-[12px]">taken back</span> : null}
              </li>
            ))}
          </ol>
          {runs.data?.runs.length === 0 ? (
            <p className="quiet p-4">Bulk changes and publishes will stand here, each with its undo.</p>
          ) : null}
        </section>
        <section aria-label="Jobs">
          {jobs.isPending ? <Loading what="the outbox" /> : null}
          {jobs.isError ? <Failed error={jobs.error} retry={() => void jobs.refetch()} /> : null}
          {jobs.data && all.length === 0 ? (
            <Empty title="Nothing here">
              <p>Publish items or send changes; every single one is then told here with its result.</p>
            </Empty>
          ) : null}
          <ol>
            {all.map((job) => (
              <JobLine
                key={job.id}
                job={job}
                retry={() => void act('/jobs/retry', { jobs: [job.id] }, 'Queued again')}
                skip={() => void act('/jobs/skip', { jobs: [job.id] }, 'Taken out')}
              />
            ))}
          </ol>
          {jobs.hasNextPage ? (
            <button type="button" className="btn btn-sm m-4" onClick={() => void jobs.fetchNextPage()}>
              Older ones
            </button>
          ) : null}
        </section>
      </div>
    </>
  );
}

function RunLine({ run }: { run: RunProgress }) {
  const total = run.waiting + run.running + run.done + run.failed;
  const over = run.done + run.failed;
  if (total === 0) return null;
  return (
    <div className="flex items-center gap-3 border-b border-base-300 bg-base-200 px-4 py-2">
      <progress className="progress w-64" value={over} max={total} aria-label="Progress of this run" />
      <span className="figures" role="status">
        {over} of {total} {over === total ? 'done' : 'sent'}
        {run.failed ? <span className="text-warning">, {run.failed} failed</span> : null}
      </span>
    </div>
  );
}

function JobLine({ job, retry, skip }: { job: OutboxJob; retry: () => void; skip: () => void }) {
  return (
    <li className="border-b border-base-300/60">
      <details>
        <summary className="flex cursor-pointer items-center gap-3 px-4 py-1.5 hover:bg-base-200">
          {job.photo ? (
            <img
              src={photoUrl(job.photo, 'thumb')}
              alt=""
              width={26}
              height={26}
              className="h-[26px] w-[26px] rounded-sm object-cover"
            />
          ) : (
            <span className="h-[26px] w-[26px]" />
          )}
          <span className="min-w-0 flex-1 truncate">
            {job.title || 'Untitled'} <span className="mono quiet">{job.sku}</span>
          </span>
          <span className="w-28 truncate">{job.accountName}</span>
          <span className={`w-24 ${job.state === 'failed' ? 'font-medium text-warning' : ''}`}>
            {job.state === 'done' ? (outcomeWords[job.outcome ?? ''] ?? 'Done') : stateWords[job.state]}
          </span>
          <span className="quiet w-32 shrink-0 text-right whitespace-nowrap">
            <When at={job.finishedAt ?? job.createdAt} />
          </span>
        </summary>
        <div className="space-y-1 bg-base-200 px-4 py-2 pl-14">
          <ol className="quiet">
            {job.story.map((line, index) => (
              <li key={index}>
                <span className="figures">{new Date(line.at).toLocaleTimeString('en-GB')}</span> {line.text}
              </li>
            ))}
          </ol>
          <p className="flex gap-4">
            <Link className="underline" href={`/items/${job.itemId}${job.field ? `#row-${job.field}` : ''}`}>
              Open the item
            </Link>
            {job.url ? (
              <a className="underline" href={job.url} target="_blank" rel="noreferrer">
                Listing {job.remoteId}
              </a>
            ) : null}
            {job.state === 'waiting' ? (
              <button type="button" className="underline" onClick={skip}>
                Take it out
              </button>
            ) : null}
          </p>
        </div>
      </details>
      {job.state === 'failed' || (job.state === 'waiting' && job.message) ? (
        <p className="flex items-center gap-3 px-4 pb-1.5 pl-14 text-[13px]">
          <span>
            {job.message}
            {job.mend ? <span className="quiet"> – {job.mend}</span> : null}
          </span>
          {job.state === 'failed' ? (
            <button type="button" className="btn btn-xs" onClick={retry}>
              Try again
            </button>
          ) : null}
        </p>
      ) : null}
    </li>
  );
}
