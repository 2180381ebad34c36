'use client';

import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { Dialog } from '@/ui/controls/dialog';
import { Field } from '@/ui/controls/field';
import { api } from '@/ui/data/api';
import { submitted, useCommand } from '@/ui/data/use-command';

/** Begins a consignment and goes to it. `batch`: everything of it goes along; else one may be chosen. */
export function NewConsignment({ batch, close }: { batch?: number; close: () => void }) {
  const router = useRouter();
  const shops = useQuery({ queryKey: ['inbound-accounts'], queryFn: () => api('GET /consignments/accounts') });
  const batches = useQuery({
    queryKey: ['batches', 'choose'],
    queryFn: () => api('GET /batches'),
    enabled: batch === undefined,
  });
  const make = useCommand(
    async (form: FormData) => {
      const { id } = await api('POST /consignments', {
        body: { name: String(form.get('name') ?? ''), account: Number(form.get('account')) },
      });
      const chosen = Number(form.get('batch'));
      const said = chosen
        ? await api('POST /consignments/{id}/units', { params: { id }, body: { batch: chosen } })
        : { left: [] };
      router.push(`/consignments/${id}`);
      return said.left.length ? `Left out: ${said.left.join('; ')}` : undefined;
    },
    { touches: [['consignments']] },
  );
  const accounts = shops.data?.accounts ?? [];
  return (
    <Dialog title="New consignment" close={close}>
      {shops.data && accounts.length === 0 ? (
        <p>None of your accounts belongs to a marketplace with warehouses. Connect one under Marketplaces.</p>
      ) : (
        <form className="space-y-4" onSubmit={submitted((form) => void make.run(form))}>
          <Field
            label="Name"
            name="name"
            required
            maxLength={120}
            defaultValue={`Sent in ${new Date().toISOString().slice(0, 10)}`}
            data-first
          />
          <label className="block font-medium">
            <span className="mb-1 block">To the warehouses of</span>
            <select className="select select-sm w-full" name="account">
              {accounts.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </select>
          </label>
          {batch === undefined ? (
            <label className="block font-medium">
              <span className="mb-1 block">With everything of the batch</span>
              <select className="select select-sm w-full" name="batch">
                <option value="">none: choose piece by piece</option>
                {(batches.data?.batches ?? []).map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.name} (B{one.id})
                  </option>
                ))}
              </select>
            </label>
          ) : (
            <input type="hidden" name="batch" value={batch} />
          )}
          {make.problem ? (
            <p role="alert" className="text-error">
              {make.problem}
            </p>
          ) : null}
          <button type="submit" className="btn btn-primary btn-sm" disabled={make.busy || accounts.length === 0}>
            Begin
          </button>
        </form>
      )}
    </Dialog>
  );
}
