'use client';

import { formatMoney } from '@/core/measure/money';
import { useAccounts } from '@/ui/data/accounts';
import { api } from '@/ui/data/api';
import { submitted, useCommand } from '@/ui/data/use-command';
import type { AccountPart } from './account-part';

/** How fast this account is used and how much of the stock it may offer, below what the marketplace allows. */
export function PaceForm({ account, changed, again }: AccountPart) {
  const { pace, pacing, paceToday } = account;
  const { accounts } = useAccounts();
  // Warehouses whose terms let them send what is sold elsewhere.
  const servers = accounts.filter((one) => one.id !== account.id && one.fees.handling?.elsewhere !== undefined);
  const save = useCommand(async (form: FormData) => {
    const orNull = (name: string) => (form.get(name) === '' ? null : Number(form.get(name)));
    const slow = form.get('slow') === 'on';
    const { reserve, cap, relistCancelled, servedBy } = account;
    const before = { pace, reserve, cap, relistCancelled, ...(servers.length ? { servedBy } : {}) };
    await api('PUT /accounts/{id}/pace', {
      params: { id: account.id },
      body: {
        pace: {
          perMinute: orNull('perMinute'),
          newPerDay: orNull('newPerDay'),
          spread: form.get('spread') === 'on',
          slowStartFrom: slow ? (pace.slowStartFrom ?? new Date().toISOString().slice(0, 10)) : null,
        },
        reserve: Number(form.get('reserve')) || 0,
        cap: orNull('cap'),
        relistCancelled: form.get('relist') === 'on',
        ...(servers.length ? { servedBy: Number(form.get('servedBy')) || null } : {}),
      },
    });
    changed();
    return {
      text: `The pace of ${account.name} is kept`,
      back: async () => {
        await api('PUT /accounts/{id}/pace', { params: { id: account.id }, body: before });
        await again();
      },
    };
  });
  const number = (name: string, label: string, value: number | null, most: number, placeholder: string) => (
    <label className="flex flex-col gap-1">
      {label}
      <input
        name={name}
        type="number"
        min={1}
        max={most}
        placeholder={placeholder}
        className="input input-sm figures w-full"
        defaultValue={value ?? ''}
      />
    </label>
  );
  return (
    <section aria-labelledby="pace" className="border-t border-base-300 p-4">
      <h2 id="pace" className="mb-1 font-semibold">
        Pace and stock
      </h2>
      <p className="quiet figures mb-2">
        Today {paceToday.newToday.toLocaleString('en')} new listings, {paceToday.madeToday.toLocaleString('en')} of them
        made; {paceToday.perMinute.toLocaleString('en')} requests a minute.
      </p>
      <form onSubmit={submitted(save.run)} className="grid grid-cols-2 gap-2">
        {number('newPerDay', 'New a day, at most', pace.newPerDay, pacing.newPerDay, String(pacing.newPerDay))}
        {number('perMinute', 'Requests a minute', pace.perMinute, pacing.perMinute, String(pacing.perMinute))}
        <label className="col-span-2 flex items-center gap-2">
          <input type="checkbox" name="spread" className="checkbox checkbox-sm" defaultChecked={pace.spread} />
          Spread new listings over the day
        </label>
        <label className="col-span-2 flex items-center gap-2">
          <input
            type="checkbox"
            name="slow"
            className="checkbox checkbox-sm"
            defaultChecked={pace.slowStartFrom !== null}
          />
          The shop is new there: begin with a tenth, all of it after two weeks
        </label>
        <label className="flex flex-col gap-1">
          Units kept back
          <input
            name="reserve"
            type="number"
            min={0}
            max={100_000}
            className="input input-sm figures w-full"
            defaultValue={account.reserve}
          />
        </label>
        {number('cap', 'Offered at most', account.cap, 1_000_000, 'all')}
        {servers.length ? (
          <label className="col-span-2 flex flex-col gap-1">
            What is not here may be sent by the warehouse of
            <select
              // Accounts may come later than the form.
              key={servers.map((one) => one.id).join()}
              name="servedBy"
              className="select select-sm w-full"
              defaultValue={account.servedBy ?? ''}
            >
              <option value="">nobody: only what is here is offered</option>
              {servers.map(({ id, name, fees, currency }) => (
                <option key={id} value={id}>
                  {name}, for{' '}
                  {fees.handling?.tiers
                    .map((tier) => formatMoney(tier.amount + (fees.handling?.elsewhere ?? 0), currency))
                    .join(', ')}{' '}
                  by size
                </option>
              ))}
            </select>
          </label>
        ) : null}
        <label className="col-span-2 flex items-center gap-2">
          <input
            type="checkbox"
            name="relist"
            className="checkbox checkbox-sm"
            defaultChecked={account.relistCancelled}
          />
          List again by itself when an order is cancelled
        </label>
        {save.problem ? (
          <p role="alert" className="col-span-2 text-error">
            {save.problem}
          </p>
        ) : null}
        <div className="col-span-2">
          <button type="submit" className="btn btn-sm">
            Keep the pace
          </button>
        </div>
      </form>
    </section>
  );
}
