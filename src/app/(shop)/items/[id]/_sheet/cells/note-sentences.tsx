'use client';

import { useQuery } from '@tanstack/react-query';
import { noteOf, noteParts, withSwitched } from '@/core/batch/note';
import type { Item } from '@/core/item/item';
import { api } from '@/ui/data/api';

type Props = { item: Item; write: (note: string) => void };

/** The ready-made sentences for the item's condition, switched on and off; what was written besides stays. */
export function NoteSentences({ item, write }: Props) {
  const settings = useQuery({ queryKey: ['settings'], queryFn: () => api('GET /settings'), staleTime: 30_000 });
  const sentences = item.condition ? (settings.data?.conditionSnippets[item.condition] ?? []) : [];
  if (sentences.length === 0) return null;
  const { on, besides } = noteParts(sentences, item.conditionNote);
  return (
    <details className="px-1 text-[12px]">
      <summary className="quiet cursor-pointer">
        Sentences{on.length ? `, ${on.length} of ${sentences.length}` : ''}
      </summary>
      <div className="flex flex-wrap gap-1 py-1">
        {sentences.map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={on.includes(one)}
            className={`btn btn-xs h-auto whitespace-normal py-0.5 text-left ${on.includes(one) ? 'btn-active' : ''}`}
            onClick={() => write(noteOf(sentences, withSwitched(on, one), besides))}
          >
            {one}
          </button>
        ))}
      </div>
    </details>
  );
}
