import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Step } from '@/core/edit';
import type { Filter } from '@/core/filter/filter';
import type { FoundRoutine } from '@/services/routines/find-routines';
import { Link } from '@/ui/controls/link';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { useEscape } from '@/ui/frame/use-escape';

type Props = {
  /** The whole steps that are written now; none while one is not whole. */
  steps: Step[];
  /** What finds the chosen items; null where they were chosen one by one. */
  filter: Filter | null;
  /** Puts the steps of a routine in place of what is written. */
  open: (routine: FoundRoutine) => void;
  /** Puts them behind what is written. */
  append: (routine: FoundRoutine) => void;
};

/** Series of steps under names: opened for the chosen items, or kept from what is written. */
export function RoutinesMenu(props: Props) {
  const [shown, setShown] = useState(false);
  return (
    <div className="relative">
      <button type="button" className="btn btn-sm" aria-expanded={shown} onClick={() => setShown(!shown)}>
        Routines
      </button>
      {shown ? <Menu {...props} close={() => setShown(false)} /> : null}
    </div>
  );
}

function Menu({ steps, filter, open, append, close }: Props & { close: () => void }) {
  useEscape(true, close);
  const { data, isPending, error, refetch } = useQuery({ queryKey: ['routines'], queryFn: () => api('GET /routines') });
  const [name, setName] = useState('');
  const [send, setSend] = useState(true);
  const keep = useCommand(
    async () => {
      await api('POST /routines', { body: { name, filter: filter ?? { any: [] }, steps, send } });
      setName('');
      return `Kept as ${name}`;
    },
    { touches: [['routines']] },
  );
  return (
    <div
      role="group"
      aria-label="Routines"
      className="absolute left-0 z-20 mt-1 w-80 space-y-3 rounded border border-base-300 bg-base-100 p-3 shadow-lg"
    >
      {isPending ? <Loading what="the routines" /> : null}
      {error ? <Failed error={error} retry={() => void refetch()} /> : null}
      {data?.routines.length === 0 ? <p className="quiet">No series of steps has been kept yet.</p> : null}
      <ul className="max-h-64 overflow-auto">
        {data?.routines.map((one) => (
          <li key={one.id} className="flex items-center">
            <button
              type="button"
              className="btn btn-ghost btn-sm min-w-0 grow justify-start truncate font-normal"
              title="Its steps, for the chosen items"
              onClick={() => {
                open(one);
                close();
              }}
            >
              {one.name}
            </button>
            {steps.length ? (
              <button
                type="button"
                className="btn btn-ghost btn-xs"
                aria-label={`Add the steps of ${one.name}`}
                title="Behind the steps that are written"
                onClick={() => {
                  append(one);
                  close();
                }}
              >
                Add
              </button>
            ) : null}
          </li>
        ))}
      </ul>
      <form
        className="space-y-2 border-t border-base-300 pt-3"
        onSubmit={(event) => {
          event.preventDefault();
          void keep.run();
        }}
      >
        <div className="flex gap-2">
          <input
            className="input input-sm min-w-0 flex-1"
            aria-label="Name of this routine"
            placeholder={steps.length ? 'Keep these steps as …' : 'Write the steps first'}
            maxLength={80}
            disabled={steps.length === 0}
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
          <button type="submit" className="btn btn-sm" disabled={!steps.length || name.trim() === '' || keep.busy}>
            Keep
          </button>
        </div>
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={send}
            onChange={(event) => setSend(event.target.checked)}
          />
          it also sends what it changes
        </label>
        <p className="quiet">
          {filter
            ? 'It is kept for what the filter finds.'
            : 'The items were chosen one by one: before it can run by itself it is given a filter.'}
        </p>
        {keep.problem ? (
          <p role="alert" className="text-error">
            {keep.problem}
          </p>
        ) : null}
      </form>
      <Link className="underline" href="/routines">
        Plans, runs, files
      </Link>
    </div>
  );
}
