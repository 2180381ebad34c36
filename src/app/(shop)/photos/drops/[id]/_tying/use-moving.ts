import { useState } from 'react';
import { api } from '@/ui/data/api';
import { type Command, useCommand } from '@/ui/data/use-command';

type To = { kind: 'item'; item: number; before?: number | null } | { kind: 'tray' } | { kind: 'aside' };

export type Moving = {
  chosen: ReadonlySet<number>;
  /** Chosen, or not any more. */
  toggle: (file: number) => void;
  clear: () => void;
  /** Begins to drag: this file, or all that are chosen with it. */
  drag: (file: number) => void;
  dragged: readonly number[];
  end: () => void;
  move: Command<[files: readonly number[], to: To]>;
};

/** Which files are chosen or dragged, and what is done with them. */
export function useMoving(drop: number): Moving {
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const [dragged, setDragged] = useState<readonly number[]>([]);
  const move = useCommand(
    async (files: readonly number[], to: To) => {
      if (files.length === 0) return undefined;
      await api('POST /photo-drops/{id}/move', { params: { id: drop }, body: { files: [...files], to } });
      setChosen(new Set());
      return undefined;
    },
    { touches: [['photo-drops']], tells: true },
  );
  return {
    chosen,
    toggle: (file) => {
      const next = new Set(chosen);
      if (!next.delete(file)) next.add(file);
      setChosen(next);
    },
    clear: () => setChosen(new Set()),
    drag: (file) => setDragged(chosen.has(file) ? [...chosen] : [file]),
    dragged,
    end: () => setDragged([]),
    move,
  };
}
