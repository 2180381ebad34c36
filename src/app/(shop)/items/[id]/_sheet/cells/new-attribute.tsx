'use client';

import { useState } from 'react';

/** A property that no marketplace asks for: named and filled here, it stands among the others from then on. */
export function NewAttribute({ taken, add }: { taken: readonly string[]; add: (name: string, value: string) => void }) {
  const [name, setName] = useState('');
  const [value, setValue] = useState('');
  const isTaken = taken.some((one) => one.toLowerCase() === name.trim().toLowerCase());
  return (
    <form
      className="flex flex-wrap items-center gap-1"
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim() === '' || value.trim() === '' || isTaken) return;
        add(name.trim(), value.trim());
        setName('');
        setValue('');
      }}
    >
      <input
        aria-label="Name of another property"
        className="input input-sm w-32"
        placeholder="Another property"
        maxLength={60}
        value={name}
        onChange={(event) => setName(event.target.value)}
      />
      <input
        aria-label="What it is"
        className="input input-sm w-28"
        placeholder="What it is"
        maxLength={500}
        value={value}
        onChange={(event) => setValue(event.target.value)}
      />
      <button type="submit" className="btn btn-sm" disabled={name.trim() === '' || value.trim() === '' || isTaken}>
        Add
      </button>
      {isTaken ? <span className="text-[12px] text-error">It is there already</span> : null}
    </form>
  );
}
