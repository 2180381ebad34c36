import { useState } from 'react';
import type { DroppedFile, DropView } from '@/services/photos/find-drop';
import { Dialog } from '@/ui/controls/dialog';
import { ItemFinder } from '@/ui/controls/item-finder';
import { counted } from '@/ui/data/counted';
import { FileTile } from './file-tile';
import type { Moving } from './use-moving';

type Props = { drop: DropView; moving: Moving; more: () => void };

const parts: { state: DroppedFile['state']; count: keyof DropView['counts']; head: string; words: string }[] = [
  { state: 'here', count: 'untied', head: 'Tied to nothing', words: 'They wait here, also when the page is closed.' },
  { state: 'refused', count: 'refused', head: 'Not taken', words: 'Each says why.' },
  {
    state: 'twice',
    count: 'twice',
    head: 'The same picture again',
    words: 'Kept once; tie one to an item to have it there, too.',
  },
  { state: 'sheet', count: 'sheets', head: 'Barcode sheets', words: 'They only say where the others go.' },
];

/** What is tied to nothing, with the reason; what is chosen here or on the left is tied to an item, or put aside. */
export function Tray({ drop, moving, more }: Props) {
  const [finding, setFinding] = useState(false);
  const chosen = [...moving.chosen];
  const none = chosen.length === 0;
  return (
    <div className="flex min-h-0 flex-col border-l border-base-300">
      <section
        aria-label="Tray"
        tabIndex={0}
        className="min-h-0 grow space-y-3 overflow-auto p-3"
        onDragOver={(event) => moving.dragged.length && event.preventDefault()}
        onDrop={(event) => {
          if (moving.dragged.length === 0) return;
          event.preventDefault();
          void moving.move.run(moving.dragged, { kind: 'tray' });
          moving.end();
        }}
      >
        {parts.map(({ state, count: named, head, words }) => {
          const count = drop.counts[named];
          const files = drop.tray.filter((one) => one.state === state);
          if (count === 0 && state !== 'here') return null;
          const reasons = [...new Set(files.flatMap((one) => (state === 'here' && one.said ? [one.said] : [])))];
          return (
            <div key={state}>
              <h2 className="font-semibold">
                {head} <span className="figures quiet">{count.toLocaleString('en')}</span>
              </h2>
              <p className="quiet mb-1 text-[12px]">{count ? words : 'Everything has found its item.'}</p>
              {state === 'refused' || state === 'twice' ? (
                <ul className="mb-1 text-[12px]">
                  {files.map((file) => (
                    <li key={file.id}>
                      {state === 'twice' ? `${file.path.split('/').at(-1)}: ` : ''}
                      {file.said}
                    </li>
                  ))}
                </ul>
              ) : null}
              {reasons.length ? <p className="mb-1 text-[12px]">{reasons.slice(0, 4).join('. ')}</p> : null}
              {state === 'refused' ? null : (
                <div className="flex flex-wrap gap-1">
                  {files.map((file) => (
                    <FileTile key={file.id} file={file} moving={moving} />
                  ))}
                </div>
              )}
            </div>
          );
        })}
        {drop.moreInTray ? (
          <button type="button" className="btn btn-sm" onClick={more}>
            Show more, {counted(drop.moreInTray, 'file')} left
          </button>
        ) : null}
      </section>
      <div className="flex flex-wrap items-center gap-2 border-t border-base-300 p-2">
        <span className="quiet w-full text-[12px]" role="status">
          {none
            ? 'Click on files, here or on the left, to choose them; or drag them.'
            : `${counted(chosen.length, 'file')} chosen`}
        </span>
        <button type="button" className="btn btn-sm" disabled={none} onClick={() => setFinding(true)}>
          Tie to an item
        </button>
        <button
          type="button"
          className="btn btn-sm"
          disabled={none}
          onClick={() => void moving.move.run(chosen, { kind: 'tray' })}
        >
          Untie
        </button>
        <button
          type="button"
          className="btn btn-sm"
          disabled={none}
          onClick={() => void moving.move.run(chosen, { kind: 'aside' })}
        >
          Put aside
        </button>
        {none ? null : (
          <button type="button" className="btn btn-ghost btn-sm" onClick={moving.clear}>
            Choose none
          </button>
        )}
      </div>
      {finding ? (
        <Dialog
          title={`Which item ${chosen.length === 1 ? 'does' : 'do'} ${counted(chosen.length, 'file')} show?`}
          close={() => setFinding(false)}
        >
          <ItemFinder
            words=""
            choose={(item) => {
              void moving.move.run(chosen, { kind: 'item', item });
              setFinding(false);
            }}
          />
        </Dialog>
      ) : null}
    </div>
  );
}
