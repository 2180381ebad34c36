'use client';

import { useQuery } from '@tanstack/react-query';
import { useMemo, useRef } from 'react';
import { noteOf, noteParts, withSwitched } from '@/core/batch/note';
import type { Item } from '@/core/item/item';
import { api } from '@/ui/data/api';
import { usePageActions } from '@/ui/frame/actions';

type Props = { item: Item; write: (note: string) => void };

/** The ready-made sentences for the item's condition, switched on and off; what was written besides stays. */
export function NoteSentences({ item, write }: Props) {
  const details = useRef<HTMLDetailsElement>(null);
  const settings = useQuery({ queryKey: ['settings'], queryFn: () => api('GET /settings'), staleTime: 30_000 });
  usePageActions(
    useMemo(
      () => [
        {
          label: 'Sentences of the condition note',
          hint: 'Ready-made, on or off',
          keys: 'Alt G',
          run: () => {
            if (!details.current) return;
            details.current.open = true;
            details.current.querySelector('button')?.focus();
          },
        },
      ],
      [],
    ),
  );
  const sentences = item.condition ? (settings.data?.conditionSnippets[item.condition] ?? []) : [];
  if (sentences.length === 0) return null;
  const { on, besides } = noteParts(sentences, item.conditionNote);
  return (
    <details ref={details} className="px-1 text-[12px]">
      {/* Tab goes from field to field; Alt G leads here. */}
      <summary className="quiet cursor-pointer" tabIndex={-1}>
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
