import { useQuery } from '@tanstack/react-query';
import { X } from 'lucide-react';
import { sayFilter } from '@/core/filter/say';
import { homeCurrency } from '@/core/measure/money';
import type { Selection } from '@/services/records/items/selection';
import { api } from '@/ui/data/api';

/** What the choice was narrowed to, each part a chip that can be taken away. */
export function Narrowed({ selection, set }: { selection: Selection; set: (selection: Selection) => void }) {
  const custom = useQuery({ queryKey: ['custom-fields'], queryFn: () => api('GET /custom-fields'), staleTime: 60_000 });
  const { narrowed } = selection;
  const parts = narrowed === undefined ? [] : 'all' in narrowed ? narrowed.all : [narrowed];
  const context = { currency: homeCurrency, custom: custom.data?.fields ?? [], accountName: String };
  return parts.map((part, at) => {
    const text = sayFilter(part, context);
    const rest = parts.filter((_, index) => index !== at);
    return (
      <span key={text} className="flex h-7 max-w-xs items-center gap-1 rounded border border-base-300 bg-base-200 pl-2">
        <span className="truncate" title={text}>
          only where {text.charAt(0).toLowerCase() + text.slice(1)}
        </span>
        <button
          type="button"
          className="px-1.5"
          aria-label={`No longer only where ${text}`}
          onClick={() => set({ ...selection, narrowed: rest.length ? { all: rest } : undefined })}
        >
          <X size={13} aria-hidden="true" />
        </button>
      </span>
    );
  });
}
