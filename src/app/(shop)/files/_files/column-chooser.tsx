'use client';

import { ArrowDown, ArrowUp, X } from 'lucide-react';
import { useState } from 'react';
import type { ColumnChoices } from '@/services/exporting/find-columns';
import { RemovedList } from '@/ui/controls/removed-list';
import { api } from '@/ui/data/api';
import { bringBack } from '@/ui/data/bring-back';
import { useCommand } from '@/ui/data/use-command';

type Props = {
  choices: ColumnChoices;
  chosen: string[];
  change: (columns: string[]) => void;
  /** Whether they can be kept under a name. */
  canKeep?: boolean;
};

/** Which columns, in which order: all there are on the left, the chosen ones on the right; sets of them under a name. */
export function ColumnChooser({ choices, chosen, change, canKeep = true }: Props) {
  const [words, setWords] = useState('');
  const wanted = words.trim().toLowerCase();
  const found = choices.columns.filter((one) => !chosen.includes(one.id) && one.label.toLowerCase().includes(wanted));
  const labelOf = (id: string) => choices.columns.find((one) => one.id === id)?.label ?? id;
  const move = (at: number, by: number) => {
    const next = [...chosen];
    const [one] = next.splice(at, 1);
    if (one !== undefined) next.splice(at + by, 0, one);
    change(next);
  };
  return (
    <div className="grid grid-cols-2 gap-3">
      <div>
        <label className="block">
          <span className="quiet text-[12px]">Find a column</span>
          <input
            className="input input-sm w-full"
            placeholder="Title, cost, price on an account …"
            value={words}
            onChange={(event) => setWords(event.target.value)}
          />
        </label>
        <ul aria-label="Columns there are" className="mt-1 h-56 overflow-auto rounded border border-base-300">
          {found.slice(0, 300).map((one) => (
            <li key={one.id}>
              <button
                type="button"
                className="w-full truncate px-2 py-0.5 text-left hover:bg-base-200"
                onClick={() => change([...chosen, one.id])}
              >
                {one.label}
                {one.isWritable ? null : <span className="quiet"> – to look at</span>}
              </button>
            </li>
          ))}
          {found.length === 0 ? <li className="quiet px-2 py-0.5">No further column of that name</li> : null}
        </ul>
      </div>
      <div>
        {canKeep ? <Sets choices={choices} chosen={chosen} change={change} /> : null}
        <ol aria-label="Columns written out" className="mt-1 h-56 overflow-auto rounded border border-base-300">
          {chosen.map((id, at) => (
            <li key={id} className="flex items-center gap-1 px-2 hover:bg-base-200">
              <span className="min-w-0 flex-1 truncate">{labelOf(id)}</span>
              <button
                type="button"
                className="btn btn-ghost btn-xs btn-square"
                aria-label={`${labelOf(id)} further to the front`}
                disabled={at === 0}
                onClick={() => move(at, -1)}
              >
                <ArrowUp size={12} aria-hidden="true" />
              </button>
              <button
                type="button"
                className="btn btn-ghost btn-xs btn-square"
                aria-label={`${labelOf(id)} further to the back`}
                disabled={at === chosen.length - 1}
                onClick={() => move(at, 1)}
              >
                <ArrowDown size={12} aria-hidden="true" />
              </button>
              <button
                type="button"
                className="btn btn-ghost btn-xs btn-square"
                aria-label={`Without ${labelOf(id)}`}
                onClick={() => change(chosen.filter((one) => one !== id))}
              >
                <X size={12} aria-hidden="true" />
              </button>
            </li>
          ))}
          {chosen.length === 0 ? <li className="quiet px-2 py-0.5">Choose columns on the left</li> : null}
        </ol>
      </div>
    </div>
  );
}

/** Columns kept under a name, and these under a new one. */
function Sets({ choices, chosen, change }: Props) {
  const [name, setName] = useState('');
  const keep = useCommand(
    async () => {
      await api('POST /column-sets', { body: { name, columns: chosen } });
      setName('');
      return `“${name}” is kept`;
    },
    { touches: [['file-columns']], tells: true },
  );
  const known = choices.sets.find((one) => one.columns.join() === chosen.join());
  const forget = useCommand(
    async (set: { id: number; name: string }) => {
      await api('DELETE /column-sets/{id}', { params: { id: set.id } });
      return { text: `“${set.name}” is forgotten`, back: () => bringBack('columns', set.id) };
    },
    { touches: [['file-columns'], ['removed']], tells: true },
  );
  return (
    <div className="flex flex-wrap items-end gap-2">
      <label className="min-w-32 flex-1">
        <span className="quiet text-[12px]">Kept columns</span>
        <select
          className="select select-sm w-full truncate pr-8"
          value={known?.id ?? ''}
          onChange={(event) => {
            const set = choices.sets.find((one) => String(one.id) === event.target.value);
            change(set ? set.columns : choices.usual);
          }}
        >
          <option value="">Choose …</option>
          <option value="usual">The usual ones</option>
          {choices.sets.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
      </label>
      {known ? (
        <button
          type="button"
          className="btn btn-ghost btn-sm"
          aria-label={`Forget the columns ${known.name}`}
          disabled={forget.busy}
          onClick={() => void forget.run(known)}
        >
          Forget
        </button>
      ) : null}
      <form
        className="flex min-w-40 flex-1 items-end gap-1"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) void keep.run();
        }}
      >
        <label className="min-w-0 flex-1">
          <span className="quiet text-[12px]">Keep these as</span>
          <input className="input input-sm w-full" value={name} onChange={(event) => setName(event.target.value)} />
        </label>
        <button type="submit" className="btn btn-sm" disabled={!name.trim() || keep.busy || chosen.length === 0}>
          Keep
        </button>
      </form>
      <div className="w-full">
        <RemovedList kind="columns" />
      </div>
    </div>
  );
}
