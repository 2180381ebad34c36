'use client';

import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { sayStep } from '@/core/edit/step';
import { fieldsFor } from '@/core/field';
import { addressOf } from '@/core/filter/address';
import { sayFilter } from '@/core/filter/say';
import { homeCurrency } from '@/core/measure/money';
import type { FoundRoutine } from '@/services/routines/find-routines';
import { Link } from '@/ui/controls/link';
import { When } from '@/ui/controls/when';
import { useAccounts } from '@/ui/data/accounts';
import { api } from '@/ui/data/api';
import { bringBack } from '@/ui/data/bring-back';
import { counted, countedAre } from '@/ui/data/counted';
import { withSelection } from '@/ui/data/selection';
import { useCommand } from '@/ui/data/use-command';
import { PlanForm } from './plan-form';
import { saveFile } from './save-file';

const touches = [['routines'], ['progress']];

/** One routine: what it does and for what, by hand or by plan, and what it has done. */
export function RoutineCard({ routine }: { routine: FoundRoutine }) {
  const router = useRouter();
  const { accountOf } = useAccounts();
  const custom = useQuery({ queryKey: ['custom-fields'], queryFn: () => api('GET /custom-fields'), staleTime: 60_000 });
  const searches = useQuery({ queryKey: ['searches'], queryFn: () => api('GET /searches'), staleTime: 10_000 });
  const query = addressOf(routine.filter);
  const count = useQuery({
    queryKey: ['items-count', JSON.stringify(query)],
    queryFn: () => api('GET /items/count', { query }),
  });
  const accountName = (id: number) => accountOf(id)?.name ?? 'an account that is gone';
  const context = { currency: homeCurrency, custom: custom.data?.fields ?? [], accountName };
  const catalogue = fieldsFor(custom.data?.fields);
  const isForNothing = 'any' in routine.filter && routine.filter.any.length === 0;
  const carryOut = useCommand(
    async () => {
      const done = await api('POST /routines/{id}/run', { params: { id: routine.id } });
      return done.finished
        ? `${countedAre(done.items, 'item')} changed; it can be taken back`
        : `${countedAre(done.total, 'item')} being changed; the foot of every page tells how far it is`;
    },
    { touches },
  );
  const forget = useCommand(
    async () => {
      await api('DELETE /routines/{id}', { params: { id: routine.id } });
      return {
        text: `${routine.name} is forgotten; what it changed stays`,
        back: () => bringBack('routine', routine.id),
      };
    },
    { touches: [...touches, ['removed']] },
  );
  const share = useCommand(async () => {
    const file = await api('GET /routines/{id}/file', { params: { id: routine.id } });
    saveFile(`${routine.name}.json`, JSON.stringify(file, null, 2));
    return undefined;
  });
  const give = useCommand(
    async (search: number) => {
      const found = searches.data?.searches.find((one) => one.id === search);
      if (!found) return undefined;
      await api('PATCH /routines/{id}', { params: { id: routine.id }, body: { filter: found.filter } });
      return `${routine.name} is for ${found.name}`;
    },
    { touches },
  );
  const problem = carryOut.problem || forget.problem || share.problem || give.problem;
  return (
    <article
      aria-label={routine.name}
      className="grid grid-cols-[minmax(0,1fr)_15rem] gap-6 border-b border-base-300 p-4"
    >
      <div className="space-y-3">
        <h2 className="font-semibold">{routine.name}</h2>
        {routine.needsLook ? (
          <p role="status" className="text-warning">
            {routine.lastSaid}
          </p>
        ) : null}
        <ol className="list-decimal pl-5">
          {routine.steps.map((step, at) => (
            <li key={at}>{sayStep(step, homeCurrency, catalogue, accountName)}</li>
          ))}
        </ol>
        <p className="flex flex-wrap items-center gap-2">
          <span>
            For{' '}
            {isForNothing
              ? 'nothing yet: it was kept for items that were chosen one by one'
              : `what fits: ${sayFilter(routine.filter, context)}`}
            {count.data ? <span className="quiet figures"> ({counted(count.data.count, 'item')} now)</span> : null}
          </span>
          {searches.data?.searches.length ? (
            <select
              aria-label={`What ${routine.name} is for`}
              className="select select-sm w-44"
              value=""
              onChange={(event) => void give.run(Number(event.target.value))}
            >
              <option value="">Take a kept search …</option>
              {searches.data.searches.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </select>
          ) : null}
        </p>
        <PlanForm routine={routine} key={JSON.stringify(routine.plan)} />
        {problem ? (
          <p role="alert" className="text-error">
            {problem}
          </p>
        ) : null}
        <p className="flex flex-wrap gap-2">
          <button
            type="button"
            className="btn btn-sm"
            disabled={isForNothing}
            onClick={() =>
              router.push(
                withSelection(
                  '/workbench',
                  { kind: 'filter', filter: {}, except: [], narrowed: routine.filter },
                  { routine: String(routine.id) },
                ),
              )
            }
          >
            See it on the workbench
          </button>
          <button
            type="button"
            className="btn btn-primary btn-sm"
            disabled={isForNothing || carryOut.busy || !count.data?.count}
            onClick={() => void carryOut.run()}
          >
            Carry it out on {counted(count.data?.count ?? 0, 'item')} now{routine.send ? ', and send' : ''}
          </button>
          <button type="button" className="btn btn-ghost btn-sm" onClick={() => void share.run()}>
            Save as a file
          </button>
          <button type="button" className="btn btn-ghost btn-sm" onClick={() => void forget.run()}>
            Forget it
          </button>
        </p>
      </div>
      <section aria-label={`Runs of ${routine.name}`}>
        <h3 className="mb-1 font-medium">Runs</h3>
        {routine.runs.length === 0 ? <p className="quiet">None yet.</p> : null}
        <ul>
          {routine.runs.map((one) => (
            <li key={one.id}>
              <Link className="underline" href={`/runs/${one.id}`}>
                <When at={one.at} />
              </Link>
              , {counted(one.itemCount, 'item')}
              {one.undoneBy ? ', taken back' : ''}
              <span className="quiet block text-[12px]">{one.byName}</span>
            </li>
          ))}
        </ul>
        {routine.lastSaid && routine.lastAt && !routine.needsLook ? (
          <p className="quiet mt-2">
            <When at={routine.lastAt} />: {routine.lastSaid}
          </p>
        ) : null}
      </section>
    </article>
  );
}
