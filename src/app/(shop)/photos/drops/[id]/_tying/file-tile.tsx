import { memo } from 'react';
import type { DroppedFile } from '@/services/photos/find-drop';
import { photoUrl } from '@/ui/data/api';
import type { Moving } from './use-moving';

type Props = { file: DroppedFile; moving: Moving; onArrow?: (by: number) => void; onDropBefore?: () => void };

/** A file as a tile: chosen with a click or the space bar, dragged to an item or out of one. */
function Tile({ file, moving, onArrow, onDropBefore }: Props) {
  const isChosen = moving.chosen.has(file.id);
  const name = file.path.split('/').at(-1) ?? file.path;
  return (
    <button
      type="button"
      id={`file-${file.id}`}
      draggable={file.state !== 'refused'}
      disabled={file.state === 'refused'}
      aria-pressed={isChosen}
      title={`${file.path}${file.said ? `: ${file.said}` : ''}`}
      className={`relative block rounded border-2 bg-base-200 text-left ${isChosen ? 'border-primary' : 'border-transparent'}`}
      onClick={() => moving.toggle(file.id)}
      onKeyDown={(event) => {
        if (event.key === 'ArrowLeft') onArrow?.(-1);
        if (event.key === 'ArrowRight') onArrow?.(1);
      }}
      onDragStart={(event) => {
        event.dataTransfer.effectAllowed = 'move';
        event.dataTransfer.setData('text/plain', name);
        moving.drag(file.id);
      }}
      onDragEnd={moving.end}
      onDragOver={(event) => onDropBefore && moving.dragged.length && event.preventDefault()}
      onDrop={(event) => {
        if (!onDropBefore || moving.dragged.length === 0) return;
        event.preventDefault();
        event.stopPropagation();
        onDropBefore();
      }}
    >
      {file.hash ? (
        <img
          src={photoUrl(file.hash, 'thumb')}
          alt=""
          width={72}
          height={72}
          loading="lazy"
          decoding="async"
          draggable={false}
          className="h-[72px] w-[72px] rounded object-cover"
        />
      ) : (
        <span className="grid h-[72px] w-[72px] place-items-center text-[11px]">no picture</span>
      )}
      <span className="block w-[72px] truncate px-0.5 text-[10.5px]">{name}</span>
      {file.byHand ? (
        <span className="absolute top-0 right-0 rounded bg-base-100/90 px-1 text-[10px]">by hand</span>
      ) : null}
    </button>
  );
}

export const FileTile = memo(Tile);
