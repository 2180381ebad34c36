'use client';

import type { Opened } from './kit-head';
import type { LotChange } from './use-lots';

type Props = {
  count: number;
  isOpen: boolean;
  open: (what: Opened) => void;
  set: (change: LotChange) => void;
  clear: () => void;
};

/** What is done with the lots that are marked. */
export function MarkedBar({ count, isOpen, open, set, clear }: Props) {
  if (count === 0) return null;
  const deeds: [string, () => void][] = [
    ['Change', () => open('steps')],
    ['Drawers', () => open('drawers')],
    ['Prices', () => open('prices')],
    ['Keep for later', () => set({ state: 'later' })],
    ['Take out', () => set({ state: 'out' })],
    ['Open again', () => set({ state: 'open' })],
    ['Keep prices', () => set({ isKept: true })],
    ['Let prices go', () => set({ isKept: false })],
    ['Add to stock', () => open('stock')],
    ['Change in stock', () => open('there')],
  ];
  return (
    <div
      className="flex flex-wrap items-center gap-1 border-b border-base-300 bg-primary/10 px-4 py-1 text-[12px]"
      role="toolbar"
      aria-label="Chosen lots"
    >
      <span className="mr-2 font-medium" role="status">
        {count.toLocaleString('en')} chosen
      </span>
      {deeds.map(([words, act]) => (
        <button key={words} type="button" className="btn btn-xs" disabled={!isOpen} onClick={act}>
          {words}
        </button>
      ))}
      <button type="button" className="btn btn-ghost btn-xs ml-auto" onClick={clear}>
        Choose none
      </button>
    </div>
  );
}
