'use client';

import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { AmountField } from '@/ui/controls/amount-field';
import { Dialog } from '@/ui/controls/dialog';
import { Field } from '@/ui/controls/field';
import { api } from '@/ui/data/api';
import { submitted, useCommand } from '@/ui/data/use-command';

/** Begins to take sets apart, and goes there. */
export function NewKit({ close }: { close: () => void }) {
  const router = useRouter();
  const shops = useQuery({ queryKey: ['set-accounts'], queryFn: () => api('GET /kits/accounts') });
  const [totalCost, setTotalCost] = useState<number | null>(null);
  const make = useCommand(
    async (form: FormData) => {
      const body = {
        name: String(form.get('name') ?? ''),
        supplier: String(form.get('supplier') ?? ''),
        account: Number(form.get('account')) || null,
        totalCost,
      };
      const { id } = await api('POST /kits', { body });
      router.push(`/kits/${id}`);
      return undefined;
    },
    { touches: [['kits']] },
  );
  const accounts = shops.data?.accounts ?? [];
  return (
    <Dialog title="Take sets apart" close={close}>
      <form className="space-y-4" onSubmit={submitted((form) => void make.run(form))}>
        <Field label="Name" name="name" required maxLength={120} placeholder="Outfits from Aldern" data-first />
        <Field label="Supplier" name="supplier" maxLength={120} />
        <AmountField label="What all of them cost" amount={totalCost} set={setTotalCost} />
        <label className="block font-medium">
          <span className="mb-1 block">What they hold is known to the catalogue of</span>
          <select
            // What is chosen first is there only when they are known.
            key={accounts.length}
            className="select select-sm w-full"
            name="account"
            defaultValue={accounts[0]?.id ?? ''}
          >
            {accounts.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
            <option value="">nobody: I write it</option>
          </select>
        </label>
        {make.problem ? (
          <p role="alert" className="text-error">
            {make.problem}
          </p>
        ) : null}
        <button type="submit" className="btn btn-primary btn-sm" disabled={make.busy || shops.isPending}>
          Begin
        </button>
      </form>
    </Dialog>
  );
}
