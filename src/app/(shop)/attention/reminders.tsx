'use client';

import { useQuery } from '@tanstack/react-query';
import type { Answer } from '@/http/interface';
import { ItemCell } from '@/ui/controls/item-cell';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

type Reminder = Answer<'GET /reminders'>['reminders'][number];

export const useReminders = (): Reminder[] =>
  useQuery({ queryKey: ['reminders'], queryFn: () => api('GET /reminders'), refetchInterval: 20_000 }).data
    ?.reminders ?? [];

const dayWords = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeZone: 'UTC' });

/** What somebody wanted to be reminded of by today; each is let go, or put off for a week. */
export function Reminders({ reminders }: { reminders: readonly Reminder[] }) {
  const change = useCommand(
    async ({ itemId, version }: Reminder, remindOn: string | null) => {
      const patch = { remindOn, ...(remindOn === null ? { remindOf: '' } : {}) };
      await api('PATCH /items/{id}', { params: { id: itemId }, body: { baseVersion: version, patch } });
      return undefined;
    },
    { touches: [['reminders'], ['stages']], tells: true },
  );
  if (reminders.length === 0) return null;
  const inAWeek = new Date(Date.now() + 7 * 86_400_000).toISOString().slice(0, 10);
  return (
    <section aria-labelledby="reminders" className="border-b border-base-300 px-4 py-2">
      <h2 id="reminders" className="font-semibold">
        You wanted to be reminded
      </h2>
      <ul className="divide-y divide-base-300/60">
        {reminders.map((one) => (
          <li key={one.itemId} className="flex flex-wrap items-center gap-3 py-1">
            <ItemCell photo={one.photo} title={one.title} sku={one.sku} below={one.sku} href={`/items/${one.itemId}`} />
            <span className="font-medium">{one.of || 'look at it'}</span>
            <span className="quiet">{dayWords.format(new Date(`${one.on}T00:00:00Z`))}</span>
            <span className="ml-auto flex gap-2">
              <button
                type="button"
                className="btn btn-sm"
                disabled={change.busy}
                onClick={() => void change.run(one, null)}
              >
                Done
              </button>
              <button
                type="button"
                className="btn btn-sm btn-ghost"
                disabled={change.busy}
                onClick={() => void change.run(one, inAWeek)}
              >
                In a week
              </button>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
