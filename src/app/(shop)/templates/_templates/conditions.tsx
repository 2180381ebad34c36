'use client';

import type { TemplateCondition } from '@/core/listing/template/template';

const operators: [TemplateCondition['op'], string][] = [
  ['is', 'is'],
  ['not', 'is not'],
  ['starts', 'starts with'],
  ['contains', 'contains'],
  ['at-least', 'is at least'],
  ['at-most', 'is at most'],
];
const fields: [string, string][] = [
  ['category', 'Category'],
  ['brand', 'Brand'],
  ['condition', 'Condition'],
  ['price', 'Price in cents'],
  ['supplier', 'Supplier'],
  ['location', 'Place'],
  ['keywords', 'Keywords'],
  ['attributes.Decade', 'Decade'],
  ['attributes.Material', 'Material'],
  ['attributes.Film format', 'Film format'],
];

type Props = { conditions: TemplateCondition[]; set: (conditions: TemplateCondition[]) => void };

/** For which items: all conditions must hold; none at all makes it the default. */
export function Conditions({ conditions, set }: Props) {
  const change = (index: number, part: Partial<TemplateCondition>) =>
    set(conditions.map((one, at) => (at === index ? { ...one, ...part } : one)));
  return (
    <fieldset>
      <legend className="mb-1">For items of which; none means it is the default</legend>
      <ul className="space-y-1">
        {conditions.map((one, index) => (
          <li key={index} className="flex gap-2">
            <select
              aria-label={`Field of condition ${index + 1}`}
              className="select select-sm w-40"
              value={one.field}
              onChange={(event) => change(index, { field: event.target.value })}
            >
              {fields.some(([id]) => id === one.field) ? null : <option>{one.field}</option>}
              {fields.map(([id, label]) => (
                <option key={id} value={id}>
                  {label}
                </option>
              ))}
            </select>
            <select
              aria-label={`Comparison of condition ${index + 1}`}
              className="select select-sm w-32"
              value={one.op}
              onChange={(event) => change(index, { op: event.target.value as TemplateCondition['op'] })}
            >
              {operators.map(([id, label]) => (
                <option key={id} value={id}>
                  {label}
                </option>
              ))}
            </select>
            <input
              aria-label={`Value of condition ${index + 1}`}
              className="input input-sm flex-1"
              value={one.value}
              onChange={(event) => change(index, { value: event.target.value })}
            />
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
        onClick={() => set([...conditions, { field: 'category', op: 'starts', value: '' }])}
      >
        Add a condition
      </button>
    </fieldset>
  );
}
