'use client';

import { type Grouping, groupings, type LotColumn, lotColumns, type Order, orders } from './columns';
import type { View } from './shown-rows';

type Props = {
  view: View;
  change: (view: Partial<View>) => void;
  columns: readonly LotColumn[];
  toggle: (id: LotColumn['id']) => void;
  shown: number;
  all: number;
};

/** What is looked for, and how it is shown. */
export function ViewBar({ view, change, columns, toggle, shown, all }: Props) {
  return (
    <div className="flex flex-wrap items-center gap-2 border-b border-base-300 px-4 py-1.5 text-[12px]">
      <input
        type="search"
        className="input input-xs w-56"
        aria-label="Find lots"
        placeholder="Name, number, or scan a drawer"
        value={view.find}
        onChange={(event) => change({ find: event.target.value })}
      />
      <span className="quiet figures" role="status">
        {shown === all
          ? `${all.toLocaleString('en')} lots`
          : `${shown.toLocaleString('en')} of ${all.toLocaleString('en')} lots`}
      </span>
      <label className="ml-auto flex items-center gap-1">
        Order
        <select
          className="select select-xs w-32 text-[12px]"
          value={view.order}
          onChange={(event) => change({ order: event.target.value as Order, isDown: false })} // one of the options below
        >
          {Object.entries(orders).map(([id, words]) => (
            <option key={id} value={id}>
              {words}
            </option>
          ))}
        </select>
      </label>
      <button
        type="button"
        className="btn btn-xs"
        aria-pressed={view.isDown}
        onClick={() => change({ isDown: !view.isDown })}
      >
        {view.isDown ? 'falling' : 'rising'}
      </button>
      <label className="flex items-center gap-1">
        Groups
        <select
          className="select select-xs w-28 text-[12px]"
          value={view.group}
          onChange={(event) => change({ group: event.target.value as Grouping })} // one of the options below
        >
          {Object.entries(groupings).map(([id, words]) => (
            <option key={id} value={id}>
              {words}
            </option>
          ))}
        </select>
      </label>
      <details className="relative">
        <summary className="btn btn-xs">Columns</summary>
        <fieldset className="absolute right-0 z-20 mt-1 grid w-48 gap-1 rounded border border-base-300 bg-base-100 p-2 shadow">
          <legend className="sr-only">Columns that are shown</legend>
          {lotColumns
            .filter((one) => !one.isAlways)
            .map((one) => (
              <label key={one.id} className="flex items-center gap-2">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={columns.some((other) => other.id === one.id)}
                  onChange={() => toggle(one.id)}
                />
                {one.head}
              </label>
            ))}
        </fieldset>
      </details>
    </div>
  );
}
