'use client';

import { useState } from 'react';
import { counted } from '@/ui/data/counted';
import type { Chosen } from './use-choice';

type Props = {
  choice: Chosen;
  total: number;
  takeAll: () => void;
  nameOf: (account: number) => string;
  problem: string;
  begin: (mode: 'at-once' | 'one-by-one', prefer: Record<string, string>) => void;
};

/** What may be preferred where the same thing stands on several accounts; the richest wins of all else. */
const preferable = [
  { field: 'title', label: 'Titles' },
  { field: 'description', label: 'Descriptions' },
  { field: 'photos', label: 'Photos' },
  { field: 'price', label: 'Prices' },
  { field: 'attributes', label: 'Attributes' },
];

/** How many are chosen, on which accounts, and what is to become of them. */
export function ChoiceBar({ choice, total, takeAll, nameOf, problem, begin }: Props) {
  const [prefer, setPrefer] = useState<Record<string, string>>({});
  const names = choice.accounts.map(nameOf);
  return (
    <div className="border-t border-base-300 bg-base-200 px-4 py-2">
      {names.length > 1 ? (
        <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-[13px]">
          <span className="quiet">What is one thing becomes one item, from</span>
          {preferable.map(({ field, label }) => (
            <label key={field} className="flex items-center gap-1.5">
              {label}
              <select
                className="select select-sm w-30"
                value={prefer[field] ?? ''}
                onChange={(event) => {
                  const { [field]: _gone, ...others } = prefer;
                  setPrefer(event.target.value ? { ...others, [field]: event.target.value } : others);
                }}
              >
                <option value="">the richest</option>
                {names.map((name) => (
                  <option key={name}>{name}</option>
                ))}
              </select>
            </label>
          ))}
        </div>
      ) : null}
      <div className="flex flex-wrap items-center gap-3">
        <span role="status">
          {choice.total ? `${counted(choice.total, 'listing')} chosen on ${names.join(', ')}` : 'Nothing is chosen'}
        </span>
        <button type="button" className="btn btn-sm" disabled={total === 0 || choice.isAll} onClick={takeAll}>
          Choose all that are not in yet
        </button>
        <button type="button" className="btn btn-sm" disabled={choice.total === 0} onClick={choice.forget}>
          Choose none
        </button>
        {problem ? (
          <span role="alert" className="text-error">
            {problem}
          </span>
        ) : null}
        <span className="ml-auto flex gap-2">
          <button
            type="button"
            className="btn btn-sm"
            disabled={choice.total === 0}
            title="Each opens on its sheet, with what the marketplace does not know marked"
            onClick={() => begin('one-by-one', prefer)}
          >
            Bring in and look through one by one
          </button>
          <button
            type="button"
            className="btn btn-primary btn-sm"
            disabled={choice.total === 0}
            onClick={() => begin('at-once', prefer)}
          >
            Bring in {choice.total ? choice.total.toLocaleString('en') : ''}
          </button>
        </span>
      </div>
    </div>
  );
}
