'use client';

import { useState } from 'react';
import { type ConditionGrade, conditionGrades } from '@/core/item/condition';
import type { LotView } from '@/services/kits/find-kit';
import { Dialog } from '@/ui/controls/dialog';
import { api } from '@/ui/data/api';
import { submitted, useCommand } from '@/ui/data/use-command';
import type { LotChange } from './use-lots';

type Props = {
  kitId: number;
  lot: LotView;
  isOpen: boolean;
  write: (lotId: number, set: LotChange) => void;
  close: () => void;
};

/** What a lot was joined from, each to be taken apart again; and pieces that are missing or damaged. */
export function PiecesDialog({ kitId, lot, isOpen, write, close }: Props) {
  const touches = [
    ['kit-lots', kitId],
    ['kit', kitId],
  ];
  const split = useCommand(
    async (body: { how: 'joined'; at: number } | { how: 'pieces'; pieces: number; condition: ConditionGrade }) => {
      await api('POST /kits/{id}/apart', { params: { id: kitId }, body: { lot: lot.id, ...body } });
      close();
      return undefined;
    },
    { touches },
  );
  const [missing, setMissing] = useState('');
  const gone = /^\d{1,6}$/.test(missing) ? Number(missing) : 0;
  const mayChange = isOpen && lot.state !== 'done';
  return (
    <Dialog title={`${lot.name} ${lot.finish}`.trim()} close={close}>
      <h3 className="mb-1 font-medium">Made of</h3>
      <ul className="divide-y divide-base-300">
        {lot.from.map((one, at) => (
          // The same set may be there twice: only the place tells them apart.
          <li key={at} className="flex items-center gap-3 py-1.5">
            <span className="figures w-10 text-right">{one.quantity.toLocaleString('en')}</span>
            <span className="min-w-0 flex-1">
              {one.kind === 'part' ? '' : `${one.kind}, `}
              {one.within.join(' → ')}
            </span>
            {lot.from.length > 1 && mayChange ? (
              <button
                type="button"
                className="btn btn-xs"
                disabled={split.busy}
                onClick={() => void split.run({ how: 'joined', at })}
              >
                Take apart again
              </button>
            ) : null}
          </li>
        ))}
      </ul>
      {mayChange ? (
        <div className="mt-4 grid grid-cols-2 gap-6">
          <form
            onSubmit={submitted(() => {
              write(lot.id, { quantity: Math.max(0, lot.quantity - gone) });
              close();
            })}
          >
            <label className="block font-medium">
              Missing
              <input
                className="input input-sm figures mt-1 w-full"
                inputMode="numeric"
                value={missing}
                onChange={(event) => setMissing(event.target.value)}
              />
            </label>
            <p className="quiet my-2 text-[12px]">
              {lot.quantity.toLocaleString('en')} pieces, {Math.max(0, lot.quantity - gone).toLocaleString('en')} then
            </p>
            <button type="submit" className="btn btn-sm" disabled={gone < 1 || gone > lot.quantity}>
              Take them off
            </button>
          </form>
          <form
            onSubmit={submitted((form) =>
              split.run({
                how: 'pieces',
                pieces: Number(form.get('pieces')),
                condition: String(form.get('condition')) as ConditionGrade, // one of the options below
              }),
            )}
          >
            <label className="block font-medium">
              Damaged
              <input
                className="input input-sm figures mt-1 w-full"
                name="pieces"
                type="number"
                min={1}
                max={lot.quantity}
                required
              />
            </label>
            <select
              className="select select-sm my-2 w-full"
              name="condition"
              aria-label="Their condition"
              defaultValue="parts"
            >
              {conditionGrades.map((grade) => (
                <option key={grade.id} value={grade.id}>
                  {grade.label}
                </option>
              ))}
            </select>
            <button type="submit" className="btn btn-sm" disabled={split.busy}>
              Make them a lot of their own
            </button>
          </form>
        </div>
      ) : null}
      {split.problem ? (
        <p role="alert" className="mt-3 text-error">
          {split.problem}
        </p>
      ) : null}
    </Dialog>
  );
}
