'use client';

import { Hash } from 'lucide-react';
import { skuPattern } from '@/core/item/sku';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { Typed } from './typed';

type Props = {
  id: string;
  itemId: number;
  value: string;
  change: (sku: string) => void;
  flush: () => void;
  settle: () => Promise<unknown>;
  moved: () => void;
};

/** The stock number: typed, or the next one of the shop's pattern for the place and supplier as they are by now. */
export function StockNumberCell({ id, itemId, value, change, flush, settle, moved }: Props) {
  const take = useCommand(
    async () => {
      await settle();
      const { sku } = await api('POST /items/{id}/number', { params: { id: itemId } });
      moved();
      return `The stock number is ${sku} now; ${value} is not given again`;
    },
    { touches: [['sheet'], ['stages']], tells: true },
  );
  return (
    <div className="flex items-start gap-1">
      <div className="flex-1">
        <Typed
          id={id}
          label="Stock number"
          mono
          value={value}
          parse={(text) => (skuPattern.test(text) ? null : 'Letters, digits, dots, dashes or slashes, 40 at most')}
          change={change}
          flush={flush}
        />
      </div>
      <button
        type="button"
        className="btn btn-sm btn-square"
        aria-label="Next number of the pattern"
        title="Next number of the pattern"
        disabled={take.busy}
        onClick={() => void take.run()}
      >
        <Hash size={13} aria-hidden="true" />
      </button>
    </div>
  );
}
