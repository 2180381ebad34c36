'use client';

import { useQuery } from '@tanstack/react-query';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

/** What is to go out at a later time, with the way to call it off. */
export function ScheduledList() {
  const cancel = useCommand(
    async (id: number) => {
      await api('POST /scheduled/{id}/cancel', { params: { id }, body: {} });
      return 'Called off';
    },
    { tells: true },
  );
  const { data } = useQuery({
    queryKey: ['scheduled'],
    queryFn: () => api('GET /scheduled'),
    refetchInterval: 15_000,
  });
  if (!data?.scheduled.length) return null;
  return (
    <section aria-label="At a later time" className="border-b border-base-300">
      <h2 className="px-4 pt-2 text-[12px] font-semibold">At a later time</h2>
      <ul>
        {data.scheduled.map((one) => (
          <li key={one.id} className="px-4 py-1.5">
            <span className="block truncate">{one.title}</span>
            <span className="quiet text-[12px]">
              {new Date(one.dueAt).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}, {
                one.byName
              }{' '}
            </span>
            <button type="button" className="text-[12px] underline" onClick={() => void cancel.run(one.id)}>
              Call it off
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
