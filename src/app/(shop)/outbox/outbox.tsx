'use client';

import { keepPreviousData, useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { parseAsInteger, parseAsStringLiteral, useQueryStates } from 'nuqs';
import type { RunProgress } from '@/services/outbox/find-runs';
import type { LaneProgress } from '@/services/outbox/sending-progress';
import { AsFile } from '@/ui/controls/as-file';
import { ChoiceButtons } from '@/ui/controls/choice-buttons';
import { FurtherPages } from '@/ui/controls/further-pages';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { AccountSelect } from '@/ui/data/accounts';
import { api } from '@/ui/data/api';
import { counted, countedAre } from '@/ui/data/counted';
import { useCommand } from '@/ui/data/use-command';
import { JobLine } from './job-line';
import { RunLine, Runs } from './runs';
import { TaskList } from './task-list';
import { jobStates, stateWords } from './words';

/** What is planned, under way, done and failed, by run, by account and by item. */
export function Outbox() {
  const [query, setQuery] = useQueryStates(
    { run: parseAsInteger, account: parseAsInteger, item: parseAsInteger, state: parseAsStringLiteral(jobStates) },
    { history: 'replace' },
  );
  const search = {
    run: query.run ?? undefined,
    account: query.account ?? undefined,
    item: query.item ?? undefined,
    state: query.state ?? undefined,
  };
  const lanes = useQuery({ queryKey: ['progress'], queryFn: () => api('GET /progress') });
  const runs = useInfiniteQuery({
    queryKey: ['runs'],
    queryFn: ({ pageParam }) => api('GET /runs', { query: { before: pageParam || undefined } }),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next ?? undefined,
    refetchInterval: (q) => ((q.state.data?.pages.length ?? 0) <= 2 ? 10_000 : false),
  });
  const chosen = useQuery({
    queryKey: ['runs', 'chosen', query.run],
    queryFn: () => api('GET /runs', { query: { run: query.run ?? undefined } }),
    enabled: query.run !== null,
    refetchInterval: 10_000,
  });
  const jobs = useInfiniteQuery({
    queryKey: ['jobs', search],
    queryFn: ({ pageParam, signal }) =>
      api('GET /jobs', { query: { ...search, before: pageParam || undefined }, signal }),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next ?? undefined,
    placeholderData: keepPreviousData,
    refetchInterval: (q) => ((q.state.data?.pages.length ?? 0) <= 2 ? 10_000 : false),
  });
  const all = jobs.data?.pages.flatMap((page) => page.jobs) ?? [];
  const run = query.run === null ? undefined : chosen.data?.runs[0];
  const lane = lanes.data?.lanes.find((one) => one.accountId === query.account);
  const hold = useCommand(
    async (lane: LaneProgress) => {
      await api('POST /accounts/hold', { body: { accounts: [lane.accountId], stopped: !lane.paused } });
      return lane.paused ? `${lane.name} goes on` : `${lane.name} is stopped`;
    },
    { tells: true },
  );
  const stop = useCommand(
    async (id: number) => {
      await api('POST /runs/{id}/stop', { params: { id }, body: {} });
      return 'Stopped; nothing of it is lost';
    },
    { tells: true },
  );
  const resume = useCommand(
    async (id: number) => {
      await api('POST /runs/{id}/resume', { params: { id }, body: {} });
      return 'It goes on';
    },
    { tells: true },
  );
  const retry = useCommand(
    async (id: number) => {
      await api('POST /jobs/retry', { body: { jobs: [id] } });
      return 'Queued again';
    },
    { tells: true },
  );
  const skip = useCommand(
    async (id: number) => {
      await api('POST /jobs/skip', { body: { jobs: [id] } });
      return 'Taken out';
    },
    { tells: true },
  );
  const undo = useCommand(
    async (one: RunProgress) => {
      const undone = await api('POST /runs/{id}/undo', { params: { id: one.id }, body: { send: true } });
      return `${countedAre(undone.items, 'item')} as before${undone.changedSince.length ? `, ${undone.changedSince.length} were changed since and stay` : ''}`;
    },
    { tells: true },
  );
  const back = useCommand(
    async (one: RunProgress) => {
      const isPublish = one.kind === 'publish';
      const words = isPublish
        ? `End what was listed by “${one.title}”? The items stay here with their stock.`
        : `List again what was ended by “${one.title}”?`;
      if (!window.confirm(words)) return undefined;
      const { queued } = await api('POST /runs/{id}/back', { params: { id: one.id }, body: {} });
      return `${counted(queued, 'listing')} ${isPublish ? (queued === 1 ? 'ends' : 'end') : 'on the way again'}`;
    },
    { tells: true },
  );
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
          <button type="button" className="btn btn-sm ml-auto" onClick={() => void hold.run(lane)}>
            {lane.paused ? `Let ${lane.name} go on` : `Stop ${lane.name}`}
          </button>
        ) : null}
        <AsFile of="GET /jobs/file" what="These jobs" query={search} />
      </PageHead>
      {run ? <RunLine run={run} stop={() => void stop.run(run.id)} resume={() => void resume.run(run.id)} /> : null}
      <div className="grid grid-cols-[17rem_minmax(0,1fr)] max-lg:grid-cols-1">
        <section aria-label="Runs" className="border-r border-base-300">
          <TaskList />
          <div className="flex items-center border-b border-base-300/60 px-4 py-1">
            <h2 className="text-[13px] font-semibold">In one go</h2>
            <AsFile of="GET /runs/file" what="All runs" />
          </div>
          {runs.isPending ? <Loading what="the runs" /> : null}
          {runs.isError ? <Failed error={runs.error} /> : null}
          {runs.data ? (
            <Runs
              runs={runs.data.pages.flatMap((page) => page.runs)}
              chosen={query.run}
              choose={(id) => void setQuery({ run: id })}
              undo={(one) => void undo.run(one)}
              back={(one) => void back.run(one)}
            />
          ) : null}
          <FurtherPages pages={runs} words="Show earlier ones" />
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
              <JobLine key={job.id} job={job} retry={() => void retry.run(job.id)} skip={() => void skip.run(job.id)} />
            ))}
          </ol>
          <FurtherPages pages={jobs} words="Older ones" />
        </section>
      </div>
    </>
  );
}
