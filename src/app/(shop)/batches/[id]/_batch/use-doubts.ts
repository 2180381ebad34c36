'use client';

import { useCallback, useEffect, useState } from 'react';
import { newKey } from '@/ui/data/new-key';

export type Doubt = { id: string; text: string };

const keyOf = (batch: number) => `netting.intake-doubts.${batch}`;

function kept(batch: number): Doubt[] {
  try {
    const read: unknown = JSON.parse(localStorage.getItem(keyOf(batch)) ?? '[]');
    return Array.isArray(read) ? (read as Doubt[]) : []; // written below
  } catch {
    return [];
  }
}

/** Codes that came twice within a second and were not decided yet; kept in the browser until they are. */
export function useDoubts(batch: number): {
  doubts: Doubt[];
  doubt: (text: string) => void;
  take: (id: string) => Doubt | null;
} {
  const [doubts, setDoubts] = useState<Doubt[]>([]);
  useEffect(() => setDoubts(kept(batch)), [batch]);
  const keep = useCallback(
    (next: Doubt[]) => {
      localStorage.setItem(keyOf(batch), JSON.stringify(next));
      setDoubts(next);
    },
    [batch],
  );
  return {
    doubts,
    doubt: (text) => keep([{ id: newKey(), text }, ...kept(batch)]),
    take: (id) => {
      keep(kept(batch).filter((one) => one.id !== id));
      return doubts.find((one) => one.id === id) ?? null;
    },
  };
}
