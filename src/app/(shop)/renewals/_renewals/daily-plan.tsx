'use client';

import { useState } from 'react';
import type { AccountView } from '@/services/accounts/find-accounts';
import { api } from '@/ui/data/api';
import { submitted, useCommand } from '@/ui/data/use-command';

/** So many a day, by rule, by itself. */
export function DailyPlan({ account }: { account: AccountView }) {
  const [on, setOn] = useState(account.renewal.on);
  const save = useCommand(async (form: FormData) => {
    const number = (name: string) => Number(form.get(name));
    const { renewal: before } = account;
    const { due } = await api('PUT /accounts/{id}/renewal', {
      params: { id: account.id },
      body: {
        on,
        minDays: number('minDays'),
        mostPerDay: number('mostPerDay'),
        withinDays: form.get('withinDays') === '' ? null : number('withinDays'),
      },
    });

    return {
      text: on ? `Kept. ${due} are due by this rule` : 'Nothing is renewed by itself now',
      back: async () => {
        await api('PUT /accounts/{id}/renewal', { params: { id: account.id }, body: before });
        setOn(before.on);
      },
    };
  });
  return (
    <form
      aria-label="Daily plan"
      onSubmit={submitted(save.run)}
      className="flex flex-wrap items-center gap-3 border-b border-base-300 px-4 py-2"
    >
      <label className="flex items-center gap-2 font-medium">
        <input
          type="checkbox"
          className="checkbox checkbox-sm"
          checked={on}
          onChange={(event) => setOn(event.target.checked)}
        />
        Renew on {account.name} every day by itself
      </label>
      <label className="flex items-center gap-2">
        at most
        <input
          name="mostPerDay"
          type="number"
          min={1}
          max={10_000}
          className="input input-sm w-20"
          defaultValue={account.renewal.mostPerDay}
          key={account.renewal.mostPerDay}
        />
        a day
      </label>
      <label className="flex items-center gap-2">
        older than
        <input
          name="minDays"
          type="number"
          min={1}
          max={365}
          className="input input-sm w-20"
          defaultValue={account.renewal.minDays}
          key={account.renewal.minDays}
        />
        days
      </label>
      <label className="flex items-center gap-2">
        only when they renew within
        <input
          name="withinDays"
          type="number"
          min={1}
          max={365}
          placeholder="any"
          className="input input-sm w-20"
          defaultValue={account.renewal.withinDays ?? ''}
          key={account.renewal.withinDays}
        />
        days
      </label>
      <button type="submit" className="btn btn-sm">
        Keep the plan
      </button>
      {save.problem ? (
        <span role="alert" className="text-error">
          {save.problem}
        </span>
      ) : null}
    </form>
  );
}
