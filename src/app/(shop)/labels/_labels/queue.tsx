'use client';

import { useQuery } from '@tanstack/react-query';
import { Failed } from '@/ui/controls/states';
import { When } from '@/ui/controls/when';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

/** What waits for the printer, why, and what it printed last. */
export function Queue() {
  const { data, error, refetch } = useQuery({
    queryKey: ['print-queue'],
    queryFn: () => api('GET /labels/queue'),
    refetchInterval: 2_000,
  });
  const stop = useCommand(
    async (id: number) => {
      await api('POST /labels/queue/{id}/stop', { params: { id }, body: {} });
      return undefined;
    },
    { touches: [['print-queue']], tells: true },
  );
  const waiting = (data?.jobs ?? []).filter((one) => one.state === 'waiting').reverse();
  const past = (data?.jobs ?? []).filter((one) => one.state !== 'waiting');
  const why = waiting.find((one) => one.message)?.message;
  return (
    <section aria-label="Printer" className="space-y-3 border-l border-base-300 p-4 lg:overflow-y-auto">
      <h2 className="font-semibold">Printer</h2>
      {error ? <Failed error={error} retry={() => void refetch()} /> : null}
      {why ? (
        <p role="status" className="text-warning">
          {why}. {waiting.length} {waiting.length === 1 ? 'job waits' : 'jobs wait'}, and{' '}
          {waiting.length === 1 ? 'is' : 'are'} printed when it is back.
        </p>
      ) : null}
      {data && data.jobs.length === 0 ? <p className="quiet">Nothing was printed yet.</p> : null}
      <ul className="space-y-1">
        {waiting.map((one) => (
          <li key={one.id} className="flex items-center gap-2">
            <span className="min-w-0 flex-1 truncate">{one.title}</span>
            <button type="button" className="btn btn-ghost btn-xs" onClick={() => void stop.run(one.id)}>
              Take out
            </button>
          </li>
        ))}
      </ul>
      <ul className="quiet space-y-1 text-[12px]">
        {past.slice(0, 20).map((one) => (
          <li key={one.id} className="truncate">
            {one.title}: {one.state === 'printed' && one.printedAt ? <When at={one.printedAt} /> : one.message}
          </li>
        ))}
      </ul>
    </section>
  );
}
