'use client';

import { useState } from 'react';
import { amountToText, homeCurrency, parseAmount } from '@/core/measure/money';
import type { OfferGoal } from '@/core/price/offer-rule';
import { api } from '@/ui/data/api';
import { submitted, useCommand } from '@/ui/data/use-command';
import type { AccountPart } from './account-part';

const kinds = [
  ['', 'never by itself'],
  ['net', `a net of, ${homeCurrency}`],
  ['margin', 'a margin of, %'],
] as const;

const shown = (goal: OfferGoal | null): string =>
  goal === null ? '' : goal.kind === 'net' ? amountToText(goal.amount, homeCurrency) : String(goal.basisPoints / 100);

function read(form: FormData, name: string, what: string): OfferGoal | null {
  const kind = String(form.get(`${name}-kind`));
  const text = String(form.get(name) ?? '');
  if (kind === '') return null;
  if (kind === 'net') {
    const amount = parseAmount(text, homeCurrency);
    if (amount === null) throw new Error(`${what}: the amount is not understood; write it as in 25.00`);
    return { kind, amount };
  }
  const share = Number(text.replace(',', '.'));
  if (text.trim() === '' || !Number.isFinite(share)) throw new Error(`${what}: the margin is not understood`);
  return { kind: 'margin', basisPoints: Math.round(share * 100) };
}

/** Which offers are taken and declined by themselves, by what would be left of them. */
export function OfferRules({ account, changed, again }: AccountPart) {
  const rule = account.offerRule;
  const save = useCommand(async (form: FormData) => {
    await api('PUT /accounts/{id}/offers', {
      params: { id: account.id },
      body: {
        acceptFrom: read(form, 'acceptFrom', 'Taken from'),
        declineBelow: read(form, 'declineBelow', 'Declined below'),
      },
    });
    changed();
    return {
      text: `Offers on ${account.name} follow this rule, those that are open already, too`,
      back: async () => {
        if (rule) await api('PUT /accounts/{id}/offers', { params: { id: account.id }, body: rule });
        await again();
      },
    };
  });
  if (!rule) return null;
  return (
    <form onSubmit={submitted(save.run)} className="border-t border-base-300 p-4" aria-labelledby="offer-rule">
      <h2 id="offer-rule" className="mb-2 font-semibold">
        Offers of buyers
      </h2>
      <div className="grid gap-2">
        <Goal name="acceptFrom" label="Take an offer that leaves at least" goal={rule.acceptFrom} />
        <Goal name="declineBelow" label="Decline an offer that leaves less than" goal={rule.declineBelow} />
      </div>
      <p className="quiet mt-1 text-[12px]">What lies between waits for you, here and on the item.</p>
      {save.problem ? (
        <p role="alert" className="mt-2 text-error">
          {save.problem}
        </p>
      ) : null}
      <button type="submit" className="btn btn-sm mt-2" disabled={save.busy}>
        Keep the rule for offers
      </button>
    </form>
  );
}

function Goal({ name, label, goal }: { name: string; label: string; goal: OfferGoal | null }) {
  const [kind, setKind] = useState<string>(goal?.kind ?? '');
  return (
    <div className="flex items-end gap-2">
      <label className="flex flex-1 flex-col text-[12px]">
        {label}
        <select
          name={`${name}-kind`}
          className="select select-sm w-full"
          value={kind}
          onChange={(event) => setKind(event.target.value)}
        >
          {kinds.map(([id, words]) => (
            <option key={id} value={id}>
              {words}
            </option>
          ))}
        </select>
      </label>
      <input
        name={name}
        aria-label={`${label}: how much`}
        className="input input-sm figures w-28"
        inputMode="decimal"
        disabled={kind === ''}
        defaultValue={shown(goal)}
      />
    </div>
  );
}
