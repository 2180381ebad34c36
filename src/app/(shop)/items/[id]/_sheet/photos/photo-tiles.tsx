'use client';

import { useEffect, useRef, useState } from 'react';
import type { Focused, MovingPhotos } from './moving-photos';
import { PhotoTile, type PhotoTileProps } from './photo-tile';

type Props = { tiles: PhotoTileProps[]; move: (order: number[]) => void };

/** Which button of which photo has the focus. */
function focusIn(list: HTMLElement | null): Focused {
  const button = document.activeElement;
  const tile = button?.closest<HTMLElement>('[data-photo]');
  if (!button || !tile || !list?.contains(tile)) return null;
  return {
    tile: Number(tile.dataset.photo),
    button: [...tile.querySelectorAll('button')].indexOf(button as HTMLButtonElement),
  }; // closest found a tile, whose focus only its buttons take
}

/** The photos in their order. What moves them is fetched when the mouse or the focus comes to them. */
export function PhotoTiles({ tiles, move }: Props) {
  const list = useRef<HTMLDivElement>(null);
  const [moving, setMoving] = useState<{ Tiles: typeof MovingPhotos; focused: Focused } | null>(null);
  const fetched = useRef<typeof MovingPhotos | null>(null);
  const isPressed = useRef(false);
  const take = () => {
    const Tiles = fetched.current;
    if (Tiles && !isPressed.current) setMoving((now) => now ?? { Tiles, focused: focusIn(list.current) });
  };
  const fetchMoving = async () => {
    fetched.current = (await import('./moving-photos')).MovingPhotos;
    take();
  };
  // A button that is being pressed stays until it is let go: with another in its place nothing would come of it.
  const press = () => {
    isPressed.current = true;
    const over = new AbortController();
    const letGo = () => {
      over.abort();
      setTimeout(() => {
        isPressed.current = false;
        take();
      });
    };
    for (const name of ['pointerup', 'pointercancel']) window.addEventListener(name, letGo, { signal: over.signal });
  };
  // Whoever goes by keyboard comes there by Tab.
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => event.key === 'Tab' && void import('./moving-photos');
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  if (moving) return <moving.Tiles tiles={tiles} focused={moving.focused} move={move} />;
  return (
    <div
      ref={list}
      role="group"
      aria-label="Photos in their order"
      className="contents"
      onPointerOver={() => void fetchMoving()}
      onPointerDown={press}
      onFocus={() => void fetchMoving()}
    >
      {tiles.map((tile) => (
        <PhotoTile key={tile.id} {...tile} />
      ))}
    </div>
  );
}
