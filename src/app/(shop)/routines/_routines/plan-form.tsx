'use client';

import { useState } from 'react';
import type { RoutinePlan } from '@/core/edit/routine';
import type { FoundRoutine } from '@/services/routines/find-routines';
import { When } from '@/ui/controls/when';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

const weekdays = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'];
const touches = [['routines'], ['progress']];

/** When a routine is carried out by itself, and how many items it may change in one go. */
export function PlanForm({ routine }: { routine: FoundRoutine }) {
  const [plan, setPlan] = useState<RoutinePlan>(
    routine.plan ?? {
      every: 'day',
      weekday: 1,
      time: '07:00',
      zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
      most: 500,
      isTrial: true,
    },
  );
  const keep = useCommand(
    async (next: RoutinePlan | null) => {
      await api('PATCH /routines/{id}', { params: { id: routine.id }, body: { plan: next } });
      if (next) setPlan(next);
      if (!next) return `${routine.name} waits for you`;
      return next.isTrial ? `${routine.name} is tried first, and changes nothing` : `${routine.name} goes by its plan`;
    },
    { touches },
  );
  const set = (part: Partial<RoutinePlan>) => setPlan({ ...plan, ...part });
  return (
    <form
      className="space-y-2"
      onSubmit={(event) => {
        event.preventDefault();
        void keep.run({ ...plan, isTrial: routine.plan === null ? true : plan.isTrial });
      }}
    >
      <div className="flex flex-wrap items-center gap-2">
        <select
          aria-label="How often"
          className="select select-sm w-32"
          value={plan.every}
          onChange={(event) => set({ every: event.target.value === 'week' ? 'week' : 'day' })}
        >
          <option value="day">Every day</option>
          <option value="week">Every week</option>
        </select>
        {plan.every === 'week' ? (
          <select
            aria-label="On which day"
            className="select select-sm w-36"
            value={plan.weekday}
            onChange={(event) => set({ weekday: Number(event.target.value) })}
          >
            {weekdays.map((name, at) => (
              <option key={name} value={at}>
                {name}
              </option>
            ))}
          </select>
        ) : null}
        <label className="flex items-center gap-1.5">
          at
          <input
            type="time"
            required
            className="input input-sm w-32"
            value={plan.time}
            onChange={(event) => set({ time: event.target.value })}
          />
        </label>
        <label className="flex items-center gap-1.5">
          at most
          <input
            type="number"
            required
            min={1}
            max={1_000_000}
            className="input input-sm figures w-24"
            value={plan.most}
            onChange={(event) => set({ most: Number(event.target.value) })}
          />
          items
        </label>
        <button type="submit" className="btn btn-sm" disabled={keep.busy}>
          {routine.plan ? 'Keep the plan' : 'Try it by this plan'}
        </button>
        {routine.plan ? (
          <button
            type="button"
            className="btn btn-ghost btn-sm"
            disabled={keep.busy}
            onClick={() => void keep.run(null)}
          >
            No plan
          </button>
        ) : null}
      </div>
      {keep.problem ? (
        <p role="alert" className="text-error">
          {keep.problem}
        </p>
      ) : null}
      {routine.plan && routine.dueAt ? (
        <p className="quiet">
          Next <When at={routine.dueAt} />, by the clock of {routine.plan.zone}
          {routine.plan.isTrial ? '. It is only tried: what it would do is said here, and nothing is changed.' : '.'}
        </p>
      ) : (
        <p className="quiet">It is tried at once, changing nothing: you see what it would do, and let it go on.</p>
      )}
      {routine.plan?.isTrial ? (
        <button
          type="button"
          className="btn btn-primary btn-sm"
          disabled={keep.busy || routine.lastSaid === null}
          onClick={() => void keep.run({ ...plan, isTrial: false })}
        >
          {routine.lastSaid === null ? 'Being tried …' : 'Let it change things from now on'}
        </button>
      ) : null}
    </form>
  );
}
