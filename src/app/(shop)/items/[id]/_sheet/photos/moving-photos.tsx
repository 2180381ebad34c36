'use client';

import {
  type Announcements,
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  arrayMove,
  horizontalListSortingStrategy,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { useEffect, useRef } from 'react';
import { PhotoTile, type PhotoTileProps } from './photo-tile';

/** The tile, and the button of it, that had the focus when this took the place of tiles that cannot be moved. */
export type Focused = { tile: number; button: number } | null;

type Props = {
  tiles: PhotoTileProps[];
  focused: Focused;
  /** The places in their new order, by what they were before. */
  move: (order: number[]) => void;
};

/** Photos that are moved with the mouse or, from their handle, with space and the arrow keys. */
export function MovingPhotos({ tiles, focused, move }: Props) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const first = useRef<HTMLDivElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only once, where the focus was
  useEffect(() => {
    if (focused)
      first.current?.querySelectorAll<HTMLElement>(`[data-photo="${focused.tile}"] button`)[focused.button]?.focus();
  }, []);
  const place = (id: string | number) => tiles.findIndex((one) => one.id === id) + 1;
  const announcements: Announcements = {
    onDragStart: ({ active }) => `Photo ${place(active.id)} picked up`,
    onDragOver: ({ active, over: target }) =>
      target ? `Photo ${place(active.id)} is over place ${place(target.id)}` : undefined,
    onDragEnd: ({ active, over: target }) =>
      target ? `Photo ${place(active.id)} is put at place ${place(target.id)}` : undefined,
    onDragCancel: ({ active }) => `Photo ${place(active.id)} stays where it was`,
  };
  const onDragEnd = ({ active, over: target }: DragEndEvent) => {
    if (!target || active.id === target.id) return;
    const at = (id: string | number) => tiles.findIndex((one) => one.id === id);
    move(arrayMove([...tiles.keys()], at(active.id), at(target.id)));
  };
  return (
    <DndContext
      id="photos"
      accessibility={{ announcements }}
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={onDragEnd}
    >
      <SortableContext items={tiles} strategy={horizontalListSortingStrategy}>
        <div ref={first} className="contents">
          {tiles.map((tile) => (
            <MovingPhoto key={tile.id} {...tile} />
          ))}
        </div>
      </SortableContext>
    </DndContext>
  );
}

function MovingPhoto(tile: PhotoTileProps) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: tile.id });
  return (
    <PhotoTile
      {...tile}
      moving={{
        place: setNodeRef,
        style: { transform: CSS.Transform.toString(transform), transition },
        isMoving: isDragging,
        handle: { ...attributes, ...listeners },
      }}
    />
  );
}
