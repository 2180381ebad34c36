'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { itemFieldIds } from '@/core/field/item-fields';
import type { Condition, FilterOperator } from '@/core/filter/filter';
import {
  filterField,
  filterFieldName,
  operatorsFor,
  operatorWords,
  readConditionValue,
  writeConditionValue,
} from '@/core/filter/say';
import type { CustomField } from '@/core/item/custom-fields';
import { homeCurrency } from '@/core/measure/money';
import { api } from '../data/api';

/** Documents as a whole say little in a condition; what is in them is named by itself. */
const odd: readonly string[] = ['attributes', 'own', 'axes', 'description'];
const facts = ['quantity', 'photoCount', 'titleLength', 'unsoldDays', 'createdAt', 'updatedAt'];
const known = ['Colour', 'Decade', 'Film format', 'Material'].map((name) => `attributes.${name}`);
const euro = { currency: homeCurrency };

type Props = { legend: string; conditions: Condition[]; set: (conditions: Condition[]) => void };

/** Conditions over the fields of the catalogue, all of which must hold: in templates, in filters, for an account. */
export function ConditionList({ legend, conditions, set }: Props) {
  const custom = useQuery({
    queryKey: ['custom-fields'],
    queryFn: () => api('GET /custom-fields'),
    staleTime: 60_000,
  }).data?.fields;
  const fields = [
    ...itemFieldIds.filter((id) => !odd.includes(id)),
    ...facts,
    ...known,
    ...(custom ?? []).map((one) => `own.${one.key}`),
  ];
  const change = (index: number, part: Partial<Condition>) =>
    set(conditions.map((one, at) => (at === index ? { ...one, ...part } : one)));
  return (
    <fieldset>
      <legend className="mb-1">{legend}</legend>
      <ul className="space-y-1">
        {conditions.map((one, index) => (
          <li key={index} className="flex gap-2">
            <select
              aria-label={`Field of condition ${index + 1}`}
              className="select select-sm w-40"
              value={one.field}
              onChange={(event) => {
                const field = event.target.value;
                const ops = operatorsFor(field);
                change(index, { field, op: ops.includes(one.op) ? one.op : ops[0] });
              }}
            >
              {[...new Set([...fields, one.field])].map((id) => (
                <option key={id} value={id}>
                  {filterFieldName(id, custom)}
                </option>
              ))}
            </select>
            <select
              aria-label={`Comparison of condition ${index + 1}`}
              className="select select-sm w-32"
              value={one.op}
              onChange={(event) => change(index, { op: event.target.value as FilterOperator })} // one of the options below
            >
              {[...new Set([...operatorsFor(one.field), one.op])].map((op) => (
                <option key={op} value={op}>
                  {operatorWords[op]}
                </option>
              ))}
            </select>
            {one.op === 'empty' || one.op === 'filled' ? (
              <span className="flex-1" />
            ) : (
              <ConditionValue
                key={`${one.field}/${one.op}`}
                label={`Value of condition ${index + 1}`}
                condition={one}
                custom={custom ?? []}
                set={(value) => change(index, { value })}
              />
            )}
            <button
              type="button"
              className="btn btn-ghost btn-sm"
              aria-label={`Remove condition ${index + 1}`}
              onClick={() => set(conditions.filter((_, at) => at !== index))}
            >
              Remove
            </button>
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="btn btn-sm mt-1"
        onClick={() => set([...conditions, { field: 'category', op: 'begins', value: '' }])}
      >
        Add a condition
      </button>
    </fieldset>
  );
}

type ValueProps = {
  label: string;
  condition: Condition;
  custom: readonly CustomField[];
  set: (value: Condition['value']) => void;
};

/** What is compared with, typed as the field is typed everywhere: amounts, weights, days, a choice of its list. */
function ConditionValue({ label, condition, custom, set }: ValueProps) {
  const field = filterField(condition.field, custom);
  const [text, setText] = useState(() => writeConditionValue(condition, field, euro));
  const read = readConditionValue(condition.op, text, field, euro);
  const problem = text !== '' && 'problem' in read ? read.problem : '';
  const single = condition.op === 'is' || condition.op === 'not';
  if (single && field?.kind.is === 'choice')
    return (
      <select
        aria-label={label}
        className="select select-sm flex-1"
        value={typeof condition.value === 'string' ? condition.value : ''}
        onChange={(event) => set(event.target.value)}
      >
        <option value="">Choose …</option>
        {field.kind.choices.map((choice) => (
          <option key={choice.id} value={choice.id}>
            {choice.label}
          </option>
        ))}
      </select>
    );
  return (
    <span className="flex-1">
      <input
        aria-label={label}
        aria-invalid={problem ? true : undefined}
        className="input input-sm w-full"
        value={text}
        placeholder={
          condition.op === 'between'
            ? '10 to 20'
            : condition.op === 'oneOf'
              ? 'one; another'
              : condition.op === 'olderThan'
                ? 'days'
                : ''
        }
        onChange={(event) => {
          setText(event.target.value);
          const next = readConditionValue(condition.op, event.target.value, field, euro);
          if ('value' in next) set(next.value);
        }}
      />
      {problem ? <span className="text-[12px] text-error">{problem}</span> : null}
    </span>
  );
}
