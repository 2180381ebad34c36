'use client';

import type { Json } from '@/core/json';
import { itemFieldName, shownItemValue } from '@/ui/controls/shown-value';
import type { Conflict } from './use-autosave';

const inWords = (field: string, value: unknown): string => shownItemValue(field, (value ?? null) as Json); // as saved: JSON

type Props = { conflicts: Conflict[]; resolve: (field: string, take: 'mine' | 'theirs') => void };

/** Fields that somebody else changed meanwhile: both values, and the choice, field by field. */
export function Conflicts({ conflicts, resolve }: Props) {
  return conflicts.map((conflict) => (
    <div
      key={conflict.field}
      role="alert"
      className="flex items-center gap-3 border-b border-base-300 bg-base-200 px-4 py-2"
    >
      <span className="line-clamp-3">
        Somebody changed <b>{itemFieldName(conflict.field).toLowerCase()}</b> meanwhile. Yours: “
        {inWords(conflict.field, conflict.mine)}”, theirs: “{inWords(conflict.field, conflict.theirs)}”.
      </span>
      <button type="button" className="btn btn-sm" onClick={() => resolve(conflict.field, 'mine')}>
        Keep mine
      </button>
      <button type="button" className="btn btn-sm" onClick={() => resolve(conflict.field, 'theirs')}>
        Take theirs
      </button>
    </div>
  ));
}
