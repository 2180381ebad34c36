'use client';

import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { firstSettings } from '@/core/batch/settings';
import { Dialog } from '@/ui/controls/dialog';
import { ApiProblem, api } from '@/ui/data/api';
import { submitted, useCommand } from '@/ui/data/use-command';
import { BatchFields, readBatch } from './batch-fields';

const today = () => new Date().toISOString().slice(0, 10);

/** Begins a batch and goes to where it is scanned. */
export function NewBatch({ close }: { close: () => void }) {
  const router = useRouter();
  const presets = useQuery({ queryKey: ['intake-presets'], queryFn: () => api('GET /intake-presets') });
  const make = useCommand(
    async (form: FormData) => {
      const preset = presets.data?.presets.find((one) => one.id === Number(form.get('preset')));
      const { id } = await api('POST /batches', {
        body: { ...readBatch(form), settings: preset?.settings ?? firstSettings },
      });
      router.push(`/batches/${id}`);
      return undefined;
    },
    { touches: [['batches']] },
  );
  const problem = make.problem
    ? { field: make.error instanceof ApiProblem ? make.error.field : undefined, text: make.problem }
    : undefined;
  return (
    <Dialog title="New batch" close={close}>
      <form className="space-y-4" onSubmit={submitted((form) => void make.run(form))}>
        <BatchFields
          batch={{
            name: '',
            supplier: '',
            boughtOn: today(),
            invoice: '',
            totalCost: null,
            shareBy: 'number',
            skuPattern: '',
          }}
          problem={problem}
        />
        {presets.data?.presets.length ? (
          <label className="block font-medium">
            <span className="mb-1 block">Begins with the settings</span>
            <select className="select select-sm w-full" name="preset">
              <option value="">none yet</option>
              {presets.data.presets.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </select>
          </label>
        ) : null}
        {problem ? (
          <p role="alert" className="text-error">
            {problem.text}
          </p>
        ) : null}
        <button type="submit" className="btn btn-primary btn-sm" disabled={make.busy}>
          Begin and scan
        </button>
      </form>
    </Dialog>
  );
}
