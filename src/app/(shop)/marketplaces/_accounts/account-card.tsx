'use client';

import { useState } from 'react';
import type { Json } from '@/core/json';
import type { ExtraRule } from '@/core/rules/rules';
import type { AccountView } from '@/services/accounts/find-accounts';
import { Link } from '@/ui/controls/link';
import { When } from '@/ui/controls/when';
import { api } from '@/ui/data/api';
import { submitted, useCommand } from '@/ui/data/use-command';

/** Fields of which one value may hold for a whole shop; what follows from the item is not asked here. */
const canHaveDefault = (extra: ExtraRule): boolean =>
  extra.type === 'choice' ||
  extra.type === 'boolean' ||
  extra.type === 'date' ||
  (extra.type === 'money' && extra.sells === true) ||
  extra.form === 'tiers' ||
  ((extra.type === 'integer' || extra.type === 'text') && !extra.from && !extra.form);

function given(extra: ExtraRule, value: FormDataEntryValue | null): Json {
  const text = String(value ?? '').trim();
  if (extra.type === 'boolean') return value === 'on';
  if (text === '') return null;
  return extra.type === 'integer' && text !== 'suggested' ? Number(text) : text;
}

/** One account: its state, what its marketplace allows, and what is said on it unless an item says otherwise. */
export function AccountCard({ account, changed }: { account: AccountView; changed: () => Promise<unknown> }) {
  const [backs, setBacks] = useState(0);
  const save = useCommand(async (form: FormData) => {
    const defaults = Object.fromEntries(
      account.extras
        .filter(canHaveDefault)
        .map((extra): [string, Json] => [extra.id, given(extra, form.get(extra.id))]),
    );
    const { name, footer, autoDraft } = account;
    const asBefore = Object.keys(defaults).map((key): [string, Json] => [key, account.defaults[key] ?? null]);
    const before = { name, footer, autoDraft, defaults: Object.fromEntries(asBefore) };
    const keep = (body: typeof before) => api('PATCH /accounts/{id}', { params: { id: account.id }, body });
    await keep({
      name: String(form.get('name')),
      footer: String(form.get('footer')),
      autoDraft: form.get('autoDraft') === 'on',
      defaults,
    });
    void changed();
    return {
      text: `${account.name} is saved`,
      back: async () => {
        await keep(before);
        await changed();
        // What was typed gives way to what is kept again.
        setBacks((count) => count + 1);
      },
    };
  });
  return (
    <section id={`account-${account.id}`} aria-label={account.name} className="rounded border border-base-300">
      <header className="flex items-baseline gap-3 border-b border-base-300 bg-base-200 px-3 py-2">
        <h2 className="font-semibold">{account.name}</h2>
        <span className="quiet">
          {account.remoteName} on {account.marketName}
        </span>
        <Link className="underline" href={`/marketplaces/${account.id}`}>
          Rules, fees, prices
        </Link>
        <span className={`ml-auto ${account.state === 'connected' && !account.lockedUntil ? '' : 'text-warning'}`}>
          {account.lockedUntil
            ? 'Locked by the marketplace'
            : account.state === 'connected'
              ? 'Connected'
              : 'Connect it again'}
        </span>
      </header>
      {account.lastError ? <p className="px-3 pt-2 text-warning">{account.lastError}</p> : null}
      <p className="quiet figures px-3 pt-2">
        {account.live} live, rules version {account.rulesVersion}
        {account.titleMax ? `, titles to ${account.titleMax} characters` : ''},{' '}
        {account.pacing.newPerDay.toLocaleString('en')} new a day
        {account.renewDays ? `, renewed every ${account.renewDays} days` : ''}
        {account.heardAt ? (
          <span className={account.unheardSince ? 'text-warning' : ''}>
            , sales heard <When at={account.heardAt} />
          </span>
        ) : null}
      </p>
      <form key={backs} onSubmit={submitted(save.run)} className="grid grid-cols-2 gap-x-4 gap-y-2 p-3">
        <label className="flex flex-col gap-1">
          Name here
          <input name="name" className="input input-sm w-full" defaultValue={account.name} required />
        </label>
        <label className="flex flex-col gap-1">
          Line under every description
          <input name="footer" className="input input-sm w-full" defaultValue={account.footer} maxLength={500} />
        </label>
        {account.extras.filter(canHaveDefault).map((extra) => (
          <Default key={extra.id} extra={extra} value={account.defaults[extra.id] ?? null} />
        ))}
        <label className="col-span-2 flex items-center gap-2">
          <input type="checkbox" name="autoDraft" className="checkbox checkbox-sm" defaultChecked={account.autoDraft} />
          New items are meant for this account
        </label>
        {save.problem ? (
          <p role="alert" className="col-span-2 text-error">
            {save.problem}
          </p>
        ) : null}
        <div className="col-span-2">
          <button type="submit" className="btn btn-sm">
            Keep {account.name}
          </button>
        </div>
      </form>
    </section>
  );
}

function Default({ extra, value }: { extra: ExtraRule; value: Json }) {
  if (extra.type === 'boolean')
    return (
      <label className="flex items-center gap-2 self-end pb-1">
        <input type="checkbox" name={extra.id} className="checkbox checkbox-sm" defaultChecked={value === true} />
        {extra.label}
      </label>
    );
  const label = (
    <span>
      {extra.label}
      {extra.required && !value ? <span className="text-warning"> needed</span> : null}
    </span>
  );
  if (extra.suggested !== undefined) return <Suggested extra={extra} value={value} />;
  if (extra.type !== 'choice')
    return (
      <label className="flex flex-col gap-1">
        {label}
        <input
          name={extra.id}
          type={extra.type === 'integer' ? 'number' : extra.type === 'date' ? 'date' : 'text'}
          placeholder={extra.form === 'tiers' ? '3: -5 %; 10: -12 %' : extra.type === 'money' ? '-10 %' : undefined}
          min={extra.min}
          max={extra.max}
          maxLength={extra.form === 'tiers' ? 200 : (extra.maxLength ?? undefined)}
          className="input input-sm w-full"
          defaultValue={value === null ? '' : String(value)}
        />
      </label>
    );
  return (
    <label className="flex flex-col gap-1">
      {label}
      <select name={extra.id} className="select select-sm w-full" defaultValue={String(value ?? '')}>
        <option value="">Said item by item</option>
        {extra.values?.map((choice) => (
          <option key={choice.id} value={choice.id}>
            {choice.label}
          </option>
        ))}
      </select>
    </label>
  );
}

/** A rate that may be the marketplace's own suggestion, whatever it is by then, rounded up. */
function Suggested({ extra, value }: { extra: ExtraRule; value: Json }) {
  const [manner, setManner] = useState(value === 'suggested' ? 'suggested' : value === null ? '' : 'own');
  return (
    <div className="flex flex-col gap-1">
      <label className="flex flex-col gap-1">
        {extra.label}
        <select className="select select-sm w-full" value={manner} onChange={(event) => setManner(event.target.value)}>
          <option value="">Said item by item</option>
          <option value="suggested">As suggested, rounded up</option>
          <option value="own">A rate of your own</option>
        </select>
      </label>
      {manner === 'own' ? (
        <input
          name={extra.id}
          aria-label={`${extra.label}: your rate`}
          type="number"
          min={extra.min}
          max={extra.max}
          className="input input-sm w-full"
          defaultValue={typeof value === 'number' ? value : ''}
        />
      ) : (
        <input type="hidden" name={extra.id} value={manner} />
      )}
    </div>
  );
}
