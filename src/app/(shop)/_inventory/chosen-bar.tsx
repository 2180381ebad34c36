'use client';

import { useState } from 'react';
import { useSells } from '@/ui/data/me';

/** The most rows that are chosen one by one; more than that are chosen by the filter. */
export const mostOneByOne = 5_000;

/** What can be done with the chosen rows. It lies over the foot of the table: no row moves when it comes. */
export function ChosenBar({
  number,
  total,
  all,
  change,
  publish,
  end,
  putAway,
  copy,
  writeOut,
  labels,
  chooseAll,
  chooseFirst,
  chooseNone,
}: {
  number: number;
  total: number;
  all: boolean;
  change: () => void;
  publish: () => void;
  end: () => void;
  putAway: () => void;
  copy: () => void;
  writeOut: () => void;
  labels: () => void;
  chooseAll: () => void;
  chooseFirst: (count: number) => void;
  chooseNone: () => void;
}) {
  const sells = useSells();
  const [first, setFirst] = useState('');
  const count = /^\d{1,4}$/.test(first) ? Number(first) : 0;
  return (
    <div
      role="toolbar"
      aria-label="Chosen items"
      className="absolute bottom-2 left-1/2 z-20 flex -translate-x-1/2 items-center gap-2 rounded border border-base-300 bg-base-200 px-3 py-1.5 whitespace-nowrap shadow-lg"
    >
      <span className="figures font-medium" role="status">
        {number.toLocaleString('en')} chosen
      </span>
      {sells ? (
        <>
          <button type="button" className="btn btn-primary btn-sm" onClick={change}>
            Change
          </button>
          <button type="button" className="btn btn-sm" onClick={publish}>
            Publish
          </button>
          <button type="button" className="btn btn-sm" title="End listings; the items stay" onClick={end}>
            End
          </button>
          <button
            type="button"
            className="btn btn-sm"
            title="To another marketplace, with the version of this one as the model"
            onClick={copy}
          >
            Copy
          </button>
          <button type="button" className="btn btn-sm" title="Archive, delete or put back" onClick={putAway}>
            Put away
          </button>
          <button
            type="button"
            className="btn btn-sm"
            title="As a file: spreadsheet, CSV, JSON, XML"
            onClick={writeOut}
          >
            Write out
          </button>
        </>
      ) : null}
      <button type="button" className="btn btn-sm" onClick={labels}>
        Labels
      </button>
      {!all && total > number ? (
        <button type="button" className="btn btn-ghost btn-sm" onClick={chooseAll}>
          Choose all {total.toLocaleString('en')}
        </button>
      ) : null}
      <form
        className="flex items-center gap-1"
        onSubmit={(event) => {
          event.preventDefault();
          if (count > 0 && count <= mostOneByOne) chooseFirst(count);
        }}
      >
        <input
          className="input input-sm figures w-16"
          inputMode="numeric"
          aria-label="Choose the first so many"
          placeholder="first …"
          value={first}
          onChange={(event) => setFirst(event.target.value)}
        />
        {count > mostOneByOne ? <span className="text-error">at most {mostOneByOne.toLocaleString('en')}</span> : null}
        {count > 0 && count <= mostOneByOne ? (
          <button type="submit" className="btn btn-ghost btn-sm">
            Choose the first {count}
          </button>
        ) : null}
      </form>
      <button type="button" className="btn btn-ghost btn-sm" onClick={chooseNone}>
        Choose none
      </button>
    </div>
  );
}
