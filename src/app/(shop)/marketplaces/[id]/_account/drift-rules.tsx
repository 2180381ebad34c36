'use client';

import { useState } from 'react';
import { fixedFields } from '@/core/field/listing-fields';
import { canBeTaken, type DriftAnswer } from '@/core/sync/drift';
import { fieldName } from '@/ui/controls/shown-value';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import type { AccountPart } from './account-part';

const words: Record<DriftAnswer, string> = { take: 'take theirs', 'put-back': 'put ours back', ask: 'ask me' };
const nameOf = (field: string) => (field === '*' ? 'Everything else' : fieldName(field));

/** What is done by itself when somebody changed a field on the marketplace and nobody changed it here. */
export function DriftRuleForm({ account, changed }: AccountPart) {
  const [field, setField] = useState('*');
  const set = useCommand(async (name: string, answer: DriftAnswer | null) => {
    const before = account.driftRules[name] ?? null;
    const { settled } = await api('PUT /accounts/{id}/drift-rules', {
      params: { id: account.id },
      body: { field: name, answer },
    });
    changed();
    const back = () =>
      api('PUT /accounts/{id}/drift-rules', { params: { id: account.id }, body: { field: name, answer: before } });
    return { text: settled ? `Kept, and ${settled} settled by it` : 'Kept', back };
  });
  const rules = Object.entries(account.driftRules);
  const fields = ['*', ...fixedFields.filter((one) => one !== 'quantity' && one !== 'sku')];
  return (
    <section aria-labelledby="drift" className="border-t border-base-300 p-4">
      <h2 id="drift" className="mb-1 font-semibold">
        When only they changed a field
      </h2>
      {rules.length === 0 ? <p className="quiet mb-2">You are asked, under Differences.</p> : null}
      <ul className="mb-2">
        {rules.map(([name, answer]) => (
          <li key={name} className="flex items-center gap-2">
            <span className="flex-1">
              {nameOf(name)}: {words[answer]}
            </span>
            <button
              type="button"
              className="quiet text-[12px] underline"
              aria-label={`Remove the rule for ${nameOf(name).toLowerCase()}`}
              onClick={() => void set.run(name, null)}
            >
              Remove
            </button>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap items-center gap-2">
        <select
          aria-label="Field"
          className="select select-sm w-40"
          value={field}
          onChange={(event) => setField(event.target.value)}
        >
          {fields.map((one) => (
            <option key={one} value={one}>
              {nameOf(one)}
            </option>
          ))}
        </select>
        {field === '*' || canBeTaken(field) ? (
          <button type="button" className="btn btn-xs" onClick={() => void set.run(field, 'take')}>
            Take theirs
          </button>
        ) : null}
        <button type="button" className="btn btn-xs" onClick={() => void set.run(field, 'put-back')}>
          Put ours back
        </button>
        {rules.some(([name]) => name === '*') && field !== '*' ? (
          <button type="button" className="btn btn-xs" onClick={() => void set.run(field, 'ask')}>
            Ask me
          </button>
        ) : null}
      </div>
      {set.problem ? (
        <p role="alert" className="text-error">
          {set.problem}
        </p>
      ) : null}
    </section>
  );
}
