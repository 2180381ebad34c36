'use client';

import { useQuery } from '@tanstack/react-query';
import { routineFileSchema } from '@/core/edit/routine';
import { Link } from '@/ui/controls/link';
import { RemovedList } from '@/ui/controls/removed-list';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { RoutineCard } from './routine-card';

function readFile(text: string) {
  let said: unknown;
  try {
    said = JSON.parse(text);
  } catch {
    throw new Error('This file is no JSON');
  }
  const read = routineFileSchema.safeParse(said);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  throw new Error(`This is no routine: ${issue?.path.join('.') || 'the file'}: ${issue?.message ?? ''}`);
}

/** Series of steps under names: for what, when, and what they have done. */
export function Routines() {
  const { data, isPending, error, refetch } = useQuery({
    queryKey: ['routines'],
    queryFn: () => api('GET /routines'),
    refetchInterval: 4_000,
  });
  const take = useCommand(
    async (file: File) => {
      const body = readFile(await file.text());
      await api('POST /routines/file', { body });
      return `${body.routine.name} is taken over`;
    },
    { touches: [['routines']] },
  );
  return (
    <>
      <PageHead title="Routines">
        <span className="quiet">Series of steps, kept on the workbench</span>
        <label className="btn btn-sm ml-auto">
          Take one from a file
          <input
            type="file"
            accept="application/json,.json"
            className="sr-only"
            onChange={(event) => {
              const [file] = event.target.files ?? [];
              event.target.value = '';
              if (file) void take.run(file);
            }}
          />
        </label>
      </PageHead>
      {take.problem ? (
        <p role="alert" className="px-4 py-2 text-error">
          {take.problem}
        </p>
      ) : null}
      {isPending ? <Loading what="the routines" /> : null}
      {error ? <Failed error={error} retry={() => void refetch()} /> : null}
      {data?.routines.length === 0 ? (
        <Empty title="No series of steps has been kept yet">
          <p>Write steps on the workbench, see what they do, and keep them there under Routines.</p>
          <Link className="btn btn-sm" href="/">
            To the inventory
          </Link>
        </Empty>
      ) : null}
      {data?.routines.map((one) => (
        <RoutineCard key={one.id} routine={one} />
      ))}
      <RemovedList kind="routine" />
    </>
  );
}
