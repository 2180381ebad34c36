'use client';

import { toPlainText } from '@/core/listing/fit/plain-text';
import type { Conflict } from './use-autosave';

const inWords = (value: unknown): string =>
  typeof value === 'string' ? toPlainText(value) : typeof value === 'object' ? JSON.stringify(value) : String(value);

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
        Somebody changed <b>{conflict.field}</b> meanwhile. Yours: “{inWords(conflict.mine)}”, theirs: “
        {inWords(conflict.theirs)}”.
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
