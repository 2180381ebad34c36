'use client';

import { useEffect, useRef } from 'react';

/** What is open just now, the last opened last. */
const open: { current: () => void }[] = [];

function onKey(event: KeyboardEvent): void {
  const last = open.at(-1);
  if (event.key !== 'Escape' || !last || event.defaultPrevented) return;
  // A dialog that lies over it closes itself first.
  if (document.querySelector('[role=dialog], dialog[open]')) return;
  event.preventDefault();
  event.stopPropagation();
  last.current();
}

/** Esc closes what was opened last, wherever the focus is. */
export function useEscape(isOpen: boolean, close: () => void): void {
  const latest = useRef(close);
  latest.current = close;
  useEffect(() => {
    if (!isOpen) return;
    if (open.length === 0) window.addEventListener('keydown', onKey, true);
    open.push(latest);
    return () => {
      open.splice(open.indexOf(latest), 1);
      if (open.length === 0) window.removeEventListener('keydown', onKey, true);
    };
  }, [isOpen]);
}
