'use client';

import { Command } from 'cmdk';
import type { Choice } from '@/core/field/kind';

/** A list that is searched while one types: long lists of a marketplace, chosen by keyboard. */
export function SearchList({
  label,
  choices,
  chosen,
  choose,
}: {
  label: string;
  choices: readonly Choice[];
  chosen: string[];
  choose: (id: string) => void;
}) {
  return (
    <Command label={label} className="rounded border border-base-300">
      <Command.Input
        autoFocus
        placeholder="Type to search"
        className="w-full border-b border-base-300 bg-transparent px-2 py-1.5 outline-none"
      />
      <Command.List className="max-h-56 overflow-auto p-1">
        <Command.Empty className="quiet px-2 py-2">Nothing of that name</Command.Empty>
        {choices.map((choice) => (
          <Command.Item
            key={choice.id}
            value={`${choice.label} ${choice.id}`}
            onSelect={() => choose(choice.id)}
            className="cursor-pointer rounded px-2 py-1 data-[selected=true]:bg-base-200"
          >
            {chosen.includes(choice.id) ? '✓ ' : ''}
            {choice.label}
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}
