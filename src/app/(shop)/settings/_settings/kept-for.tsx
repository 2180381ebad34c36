'use client';

import { useQuery } from '@tanstack/react-query';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { submitted, useCommand } from '@/ui/data/use-command';

/** How long what was changed, and what was sent, is kept; older things go by themselves. */
export function KeptFor() {
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['settings'],
    queryFn: () => api('GET /settings'),
  });
  const save = useCommand(
    async (form: FormData) => {
      const [historyDays, requestDays] = ['historyDays', 'requestDays'].map((name) => Number(form.get(name)));
      await api('PUT /settings', { body: { historyDays, requestDays } });
      return 'Kept; what is older goes within the hour';
    },
    { touches: [['settings']] },
  );
  if (isPending) return <Loading what="the settings" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  const days = (name: 'historyDays' | 'requestDays', label: string, least: number) => (
    <label className="flex flex-col text-[12px]">
      {label}
      <input
        className="input input-sm w-32"
        type="number"
        name={name}
        min={least}
        max={3_650}
        required
        defaultValue={data[name]}
        key={data[name]}
      />
    </label>
  );
  return (
    <section aria-labelledby="kept-for">
      <h2 id="kept-for" className="mb-2 font-semibold">
        How long things are kept
      </h2>
      <form className="flex flex-wrap items-end gap-3" onSubmit={submitted((form) => void save.run(form))}>
        {days('historyDays', 'Changes of items, in days', 30)}
        {days('requestDays', 'What was sent and told, in days', 7)}
        <button type="submit" className="btn btn-sm" disabled={save.busy}>
          Keep these times
        </button>
        {save.problem ? (
          <p role="alert" className="text-error">
            {save.problem}
          </p>
        ) : null}
      </form>
      <p className="quiet mt-1 text-[12px]">
        A change that is gone cannot be taken back any more. Sales and the ledger of stock stay for good.
      </p>
    </section>
  );
}
