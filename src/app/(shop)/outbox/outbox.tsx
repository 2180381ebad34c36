'use client';

import { keepPreviousData, useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import { parseAsInteger, parseAsStringLiteral, useQueryStates } from 'nuqs';
import type { Undone } from '@/services/changes/undo-run';
import type { OutboxJob } from '@/services/outbox/find-jobs';
import type { RunProgress } from '@/services/outbox/find-runs';
import type { LaneProgress } from '@/services/outbox/sending-progress';
import { AccountSelect } from '@/ui/accounts';
import { api } from '@/ui/api';
import { ChoiceButtons } from '@/ui/choice-buttons';
import { useNotice } from '@/ui/providers';
import { Empty, Failed, Loading, PageHead } from '@/ui/states';
import { JobLine } from './job-line';
import { RunLine, Runs } from './runs';
import { ScheduledList } from './scheduled';
import { jobStates, stateWords } from './words';

/** What is planned, under way, done and failed, by run, by account and by item. */
export function Outbox() {
  const [query, setQuery] = useQueryStates(
    { run: parseAsInteger, account: parseAsInteger, item: parseAsInteger, state: parseAsStringLiteral(jobStates) },
    { history: 'replace' },
  );
  const client = useQueryClient();
  const notice = useNotice();
  const search = new URLSearchParams(
    Object.entries(query).flatMap(([name, value]) => (value === null ? [] : [[name, String(value)]])),
  ).toString();
  const lanes = useQuery({ queryKey: ['progress'], queryFn: () => api<{ lanes: LaneProgress[] }>('/progress') });
  const runs = useQuery({
    queryKey: ['runs'],
    queryFn: () => api<{ runs: RunProgress[] }>('/runs'),
    refetchInterval: 10_000,
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
    refetchInterval: (q) => ((q.state.data?.pages.length ?? 0) <= 2 ? 10_000 : false),
  });
  const all = jobs.data?.pages.flatMap((page) => page.jobs) ?? [];
  const run = runs.data?.runs.find((one) => one.id === query.run);
  const lane = lanes.data?.lanes.find((one) => one.accountId === query.account);
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
        <ChoiceButtons
          legend="State of the jobs"
          all="All"
          options={jobStates}
          words={stateWords}
          value={query.state}
          choose={(state) => void setQuery({ state })}
        />
        <AccountSelect value={query.account} choose={(account) => void setQuery({ account })} />
        {query.run ? (
          <button type="button" className="btn btn-sm" onClick={() => void setQuery({ run: null })}>
            Only run {query.run} ×
          </button>
        ) : null}
        {query.item ? (
          <button type="button" className="btn btn-sm" onClick={() => void setQuery({ item: null })}>
            Only one item ×
          </button>
        ) : null}
        {lane ? (
          <button
            type="button"
            className="btn btn-sm ml-auto"
            onClick={() =>
              void act(
                '/accounts/hold',
                { accounts: [lane.accountId], stopped: !lane.paused },
                lane.paused ? `${lane.name} goes on` : `${lane.name} is stopped`,
              )
            }
          >
            {lane.paused ? `Let ${lane.name} go on` : `Stop ${lane.name}`}
          </button>
        ) : null}
      </PageHead>
      {run ? (
        <RunLine
          run={run}
          stop={() => void act(`/runs/${run.id}/stop`, {}, 'Stopped; nothing of it is lost')}
          resume={() => void act(`/runs/${run.id}/resume`, {}, 'It goes on')}
        />
      ) : null}
      <div className="grid grid-cols-[17rem_minmax(0,1fr)] max-lg:grid-cols-1">
        <section aria-label="Runs" className="border-r border-base-300">
          <ScheduledList act={(path, body, said) => void act(path, body, said)} />
          {runs.isPending ? <Loading what="the runs" /> : null}
          {runs.isError ? <Failed error={runs.error} /> : null}
          {runs.data ? (
            <Runs
              runs={runs.data.runs}
              chosen={query.run}
              choose={(id) => void setQuery({ run: id })}
              undo={(one) => void undo(one)}
            />
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
