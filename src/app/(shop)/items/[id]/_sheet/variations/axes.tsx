'use client';

import { X } from 'lucide-react';
import { useState } from 'react';
import {
  type Axis,
  combinationCount,
  mostAxes,
  mostCombinations,
  regenerate,
  type Variation,
  withRenamedValue,
} from '@/core/item/variations';
import { Chips } from '@/ui/controls/chips';

type Props = {
  axes: Axis[];
  rows: Variation[];
  /** Names that some marketplace has values for: proposed as axes, with their values. */
  known: { name: string; values: string[] }[];
  change: (axes: Axis[], rows: Variation[]) => void;
};

/** What the variations differ in: up to three axes, each with its values; the table is made of them. */
export function Axes({ axes: kept, rows, known, change }: Props) {
  // An axis is kept with its first value; until then it stands here alone.
  const [begun, setBegun] = useState<string[]>([]);
  const axes: Axis[] = [
    ...kept,
    ...begun.filter((one) => !kept.some((axis) => axis.name === one)).map((one) => ({ name: one, values: [] })),
  ];
  const [name, setName] = useState('');
  const [problem, setProblem] = useState('');
  const write = (next: Axis[]) => {
    const count = combinationCount(next.filter((axis) => axis.values.length));
    if (count > mostCombinations)
      return setProblem(`That would be ${count} combinations; at most ${mostCombinations} can be kept`);
    setProblem('');
    const filled = next.filter((axis) => axis.values.length);
    setBegun(next.filter((axis) => axis.values.length === 0).map((axis) => axis.name));
    change(filled, regenerate(filled, rows));
  };
  const add = () => {
    const clean = name.trim();
    if (!clean || axes.some((axis) => axis.name.toLowerCase() === clean.toLowerCase())) return;
    setBegun([...begun, clean]);
    setName('');
  };
  return (
    <div className="space-y-2">
      {axes.map((axis, index) => (
        <div key={axis.name} className="flex items-start gap-2">
          <span className="w-28 shrink-0 truncate py-1 font-medium">{axis.name}</span>
          <div className="min-w-0 flex-1">
            <Chips
              label={`Values of ${axis.name}`}
              values={axis.values}
              change={(values) => write(axes.map((one, at) => (at === index ? { ...one, values } : one)))}
              rename={(from, to) => {
                const done = withRenamedValue(kept, rows, index, from, to);
                if (!done)
                  return setProblem(`“${to.trim() || 'nothing'}” cannot stand there: it is empty, or there already`);
                setProblem('');
                change(done.axes, done.rows);
              }}
            />
            <Proposed
              values={known.find((one) => one.name.toLowerCase() === axis.name.toLowerCase())?.values ?? []}
              have={axis.values}
              add={(value) =>
                write(axes.map((one, at) => (at === index ? { ...one, values: [...one.values, value] } : one)))
              }
            />
          </div>
          <button
            type="button"
            className="btn btn-ghost btn-xs btn-square"
            aria-label={`Remove the axis ${axis.name}`}
            onClick={() => write(axes.filter((one) => one !== axis))}
          >
            <X size={13} aria-hidden="true" />
          </button>
        </div>
      ))}
      {axes.length < mostAxes ? (
        <form
          className="flex items-center gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            add();
          }}
        >
          <input
            aria-label="Name of a new axis"
            className="input input-sm w-44"
            placeholder={axes.length ? 'Another axis' : 'Colour, length, size …'}
            list="axis-names"
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
          <datalist id="axis-names">
            {known.map((one) => (
              <option key={one.name} value={one.name} />
            ))}
          </datalist>
          <button type="submit" className="btn btn-sm" disabled={name.trim() === ''}>
            Add an axis
          </button>
        </form>
      ) : null}
      {problem ? (
        <p role="alert" className="text-error">
          {problem}
        </p>
      ) : null}
    </div>
  );
}

function Proposed({ values, have, add }: { values: string[]; have: string[]; add: (value: string) => void }) {
  const there = new Set(have.map((one) => one.toLowerCase()));
  const left = values.filter((value) => !there.has(value.toLowerCase())).slice(0, 12);
  if (left.length === 0) return null;
  return (
    <p className="mt-0.5 flex flex-wrap gap-1 text-[11px]">
      {left.map((value) => (
        <button
          key={value}
          type="button"
          tabIndex={-1}
          className="rounded border border-base-300 px-1 hover:bg-base-200"
          onClick={() => add(value)}
        >
          + {value}
        </button>
      ))}
    </p>
  );
}
