'use client';

import { useQuery } from '@tanstack/react-query';
import type { Answer } from '@/http/interface';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { keepSettings } from '@/ui/data/keep-settings';
import { submitted, useCommand } from '@/ui/data/use-command';

type Name = {
  [N in keyof Answer<'GET /settings'>]: Answer<'GET /settings'>[N] extends number ? N : never;
}[keyof Answer<'GET /settings'>];

type Props = {
  id: string;
  title: string;
  fields: { name: Name; label: string; least: number; most: number }[];
  button: string;
  /** What is said when it is kept. */
  kept: string;
  note?: string;
};

/** Settings that are numbers of days, kept together. */
export function DaysForm({ id, title, fields, button, kept, note }: Props) {
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['settings'],
    queryFn: () => api('GET /settings'),
  });
  const save = useCommand(
    (form: FormData) =>
      keepSettings(Object.fromEntries(fields.map(({ name }) => [name, Number(form.get(name))])), kept),
    { touches: [['settings'], ['needs']] },
  );
  if (isPending) return <Loading what="the settings" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  return (
    <section aria-labelledby={id}>
      <h2 id={id} className="mb-2 font-semibold">
        {title}
      </h2>
      <form className="flex flex-wrap items-end gap-3" onSubmit={submitted((form) => void save.run(form))}>
        {fields.map(({ name, label, least, most }) => (
          <label key={name} className="flex flex-col text-[12px]">
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
        ))}
        <button type="submit" className="btn btn-sm" disabled={save.busy}>
          {button}
        </button>
        {save.problem ? (
          <p role="alert" className="text-error">
            {save.problem}
          </p>
        ) : null}
      </form>
      {note ? <p className="quiet mt-1 text-[12px]">{note}</p> : null}
    </section>
  );
}
