'use client';

import { useQuery } from '@tanstack/react-query';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { submitted, useCommand } from '@/ui/data/use-command';

/** After how long something stands under Attention by itself. */
export function LookedAt() {
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['settings'],
    queryFn: () => api('GET /settings'),
  });
  const save = useCommand(
    async (form: FormData) => {
      const [unsoldDays, bestBeforeDays] = ['unsoldDays', 'bestBeforeDays'].map((name) => Number(form.get(name)));
      await api('PUT /settings', { body: { unsoldDays, bestBeforeDays } });
      return 'Kept; Attention goes by it';
    },
    { touches: [['settings'], ['needs']] },
  );
  if (isPending) return <Loading what="the settings" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  const days = (name: 'unsoldDays' | 'bestBeforeDays', label: string, least: number, most: number) => (
    <label className="flex flex-col text-[12px]">
      {label}
      <input
        className="input input-sm w-32"
        type="number"
        name={name}
        min={least}
        max={most}
        required
        defaultValue={data[name]}
        key={data[name]}
      />
    </label>
  );
  return (
    <section aria-labelledby="looked-at">
      <h2 id="looked-at" className="mb-2 font-semibold">
        What should be looked at
      </h2>
      <form className="flex flex-wrap items-end gap-3" onSubmit={submitted((form) => void save.run(form))}>
        {days('unsoldDays', 'Nothing of it was sold, in days', 7, 3_650)}
        {days('bestBeforeDays', 'Past its best within, in days', 1, 730)}
        <button type="submit" className="btn btn-sm" disabled={save.busy}>
          Keep these days
        </button>
        {save.problem ? (
          <p role="alert" className="text-error">
            {save.problem}
          </p>
        ) : null}
      </form>
    </section>
  );
}
