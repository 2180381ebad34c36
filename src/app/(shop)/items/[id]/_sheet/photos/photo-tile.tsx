'use client';

import { Flag, Pencil, X } from 'lucide-react';
import { type ButtonHTMLAttributes, type CSSProperties, memo } from 'react';
import { photoUrl } from '@/ui/data/api';

/** What makes a photo one that can be moved. */
export type Moving = {
  place: (node: HTMLElement | null) => void;
  style: CSSProperties;
  isMoving: boolean;
  handle: ButtonHTMLAttributes<HTMLButtonElement>;
};

export type PhotoTileProps = {
  id: string;
  hash: string;
  index: number;
  flaw: string | undefined;
  outside: string;
  remove: (index: number) => void;
  edit: (index: number) => void;
  mark: (index: number) => void;
  /** Not there while the means of moving are still being fetched. */
  moving?: Moving;
};

/** One photo in its place: dragged, moved by keyboard, worked on, marked as showing a flaw. */
function PhotoTileBody({ hash, index, flaw, outside, remove, edit, mark, moving }: PhotoTileProps) {
  const small = 'absolute rounded bg-base-100/90 p-[5px]';
  return (
    <div
      ref={moving?.place}
      data-photo={index}
      style={moving?.style}
      className={`relative shrink-0 ${moving?.isMoving ? 'z-10 opacity-70' : ''}`}
    >
      <button
        type="button"
        {...moving?.handle}
        aria-label={`Photo ${index + 1}${index === 0 ? ', main photo' : ''}: move with space and arrow keys`}
        className="block cursor-grab rounded"
        onDoubleClick={() => edit(index)}
      >
        <img
          src={photoUrl(hash, 'view')}
          alt=""
          width={112}
          height={84}
          decoding="async"
          className="h-[84px] w-28 rounded object-cover"
          draggable={false}
        />
      </button>
      <span className="absolute bottom-1 left-1 rounded bg-base-100/90 px-1 text-[11px]">
        {index === 0 ? 'main' : index + 1}
      </span>
      {outside ? (
        <span
          title={`Not on ${outside}`}
          className="absolute right-1 bottom-1 max-w-16 truncate rounded bg-base-100/90 px-1 text-[10px]"
        >
          not {outside}
        </span>
      ) : null}
      <button
        type="button"
        aria-label={`Work on photo ${index + 1}`}
        className={`${small} top-1 left-1`}
        onClick={() => edit(index)}
      >
        <Pencil size={12} aria-hidden="true" />
      </button>
      <button
        type="button"
        aria-label={`Flaw on photo ${index + 1}${flaw ? `: ${flaw}` : ''}`}
        aria-pressed={Boolean(flaw)}
        title={flaw || 'It shows a flaw'}
        className={`${small} top-1 left-7 ${flaw ? 'text-warning' : ''}`}
        onClick={() => mark(index)}
      >
        <Flag size={12} aria-hidden="true" />
      </button>
      <button
        type="button"
        aria-label={`Remove photo ${index + 1}`}
        className={`${small} top-1 right-1`}
        onClick={() => remove(index)}
      >
        <X size={12} aria-hidden="true" />
      </button>
    </div>
  );
}

export const PhotoTile = memo(PhotoTileBody);
