import { useQueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import { itemField } from '@/core/field/catalogue';
import type { FoundItem } from '@/services/records/items/find-items';
import { api } from '@/ui/data/api';
import { counted, countedAre } from '@/ui/data/counted';
import { useNotice } from '@/ui/frame/providers';
import type { Cell } from './cells';

/** Writing cells of the inventory, and taking the last writing back. */
export function useCells(items: readonly FoundItem[]) {
  const client = useQueryClient();
  const notice = useNotice();
  /** What was written here, the last of it last. */
  const runs = useRef<number[]>([]);
  const again = () => void client.invalidateQueries({ queryKey: ['items'] });
  const skuOf = (id: number) => items.find((one) => one.id === id)?.sku ?? `item ${id}`;

  /** A problem in words; null when all went well. */
  const write = async (cells: Cell[]): Promise<string | null> => {
    if (cells.length === 0) return 'Nothing can be typed there';
    const done = await api('POST /cells', { body: { cells } });
    if (done.runId !== null) runs.current.push(done.runId);
    again();
    const [first] = done.refused;
    if (cells.length === 1) return first?.why ?? null;
    const without = first
      ? `; ${counted(done.refused.length, 'item')} stayed as ${done.refused.length === 1 ? 'it was' : 'they were'}: ${skuOf(first.item)}, ${(itemField(first.field)?.label ?? first.field).toLowerCase()}: ${first.why}`
      : '';
    notice(`${countedAre(done.items, 'item')} changed${without}`);
    return null;
  };

  const tell = (error: unknown) => notice(error instanceof Error ? error.message : 'Not saved');
  return {
    write,
    /** The same where there is no cell to say a problem at. */
    writeAll: (cells: Cell[]) =>
      write(cells)
        .then((problem) => problem && notice(problem))
        .catch(tell),
    takeBack: async () => {
      const last = runs.current.pop();
      if (last === undefined) return notice('Nothing was typed here that could be taken back');
      try {
        const undone = await api('POST /runs/{id}/undo', { params: { id: last }, body: {} });
        again();
        notice(`${countedAre(undone.items, 'item')} as before`);
      } catch (error) {
        tell(error);
      }
    },
  };
}
