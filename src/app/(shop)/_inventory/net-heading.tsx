import { ArrowDown, ArrowUp } from 'lucide-react';
import type { PointerEvent as Pressed } from 'react';
import type { SortName } from '@/core/filter/sorting';
import { type Column, wideEnough } from './columns';

type Props = {
  column: Column;
  sort: { by: string; dir: 'asc' | 'desc' };
  onSort: (by: SortName) => void;
  resize: (id: string, width: number) => void;
};

/** The head of a column: its order by a click anywhere in it, its width by its edge. */
export function NetHeading({ column, sort, onSort, resize }: Props) {
  const by = column.kind === 'field' ? column.sort : undefined;
  const sorted = by !== undefined && sort.by === by;
  const drag = (event: Pressed) => {
    const from = event.clientX;
    const start = column.width;
    const onMove = (now: PointerEvent) => resize(column.id, Math.max(44, start + now.clientX - from));
    const stop = () => window.removeEventListener('pointermove', onMove);
    window.addEventListener('pointermove', onMove);
    window.addEventListener('pointerup', stop, { once: true });
    event.preventDefault();
  };
  return (
    <div
      role="columnheader"
      aria-sort={sorted ? (sort.dir === 'asc' ? 'ascending' : 'descending') : undefined}
      className={`relative flex min-w-0 px-2 text-[12px] font-medium ${column.kind === 'knot' ? 'items-end justify-center border-l border-base-300/60 pt-2 pb-1.5' : 'items-end'} ${column.kind === 'field' && column.align ? 'justify-end' : ''}`}
    >
      {by ? (
        <button
          type="button"
          className={`flex h-full min-h-8 w-full items-end gap-1 truncate pb-1.5 hover:underline ${column.kind === 'field' && column.align ? 'justify-end' : ''}`}
          onClick={() => onSort(by)}
        >
          {column.label}
          {sorted ? (
            sort.dir === 'asc' ? (
              <ArrowUp size={12} aria-hidden="true" />
            ) : (
              <ArrowDown size={12} aria-hidden="true" />
            )
          ) : null}
        </button>
      ) : column.kind === 'check' ? (
        <span className="sr-only">{column.label}</span>
      ) : (
        // Narrow columns have their names on end: twelve of them stand beside what tells items apart.
        <span
          className={
            column.kind === 'knot' && column.width < wideEnough
              ? 'max-h-24 rotate-180 truncate [writing-mode:vertical-rl]'
              : 'flex h-8 items-center truncate'
          }
          title={column.label}
        >
          {column.label}
        </span>
      )}
      {column.kind === 'check' ? null : (
        <span
          aria-hidden="true"
          onPointerDown={drag}
          className="absolute right-0 bottom-1 h-6 w-1.5 cursor-col-resize border-r border-base-300"
        />
      )}
    </div>
  );
}
