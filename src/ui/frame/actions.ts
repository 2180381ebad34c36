'use client';

import { useEffect, useSyncExternalStore } from 'react';

/** Something that can be done on the page that is open: in the launcher, and in the list of shortcuts when it has keys. */
export type Action = { label: string; hint: string; keys?: string; run: () => void };

type Registered = { owner: symbol; actions: Action[] };
let registered: Registered[] = [];
let flat: Action[] = [];
const listeners = new Set<() => void>();
const none: Action[] = [];

function set(next: Registered[]): void {
  registered = next;
  flat = next.flatMap((one) => one.actions);
  for (const listener of listeners) listener();
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** What the open page offers, in the order in which its parts were drawn. */
export const useActions = (): Action[] =>
  useSyncExternalStore(
    subscribe,
    () => flat,
    () => none,
  );

const keyOf = (event: KeyboardEvent): string =>
  [
    event.ctrlKey || event.metaKey ? 'Ctrl' : '',
    event.altKey ? 'Alt' : '',
    event.shiftKey ? 'Shift' : '',
    event.code.replace(/^(Key|Digit)/, ''),
  ]
    .filter(Boolean)
    .join(' ');

/**
 * Offers actions while a component is shown, and runs them by their keys, such as `Alt M` or `Alt Shift P`. Keys name
 * the place on the keyboard, so that they work while a field is written in.
 * @param actions the same array as long as nothing in it changes
 */
export function usePageActions(actions: Action[]): void {
  useEffect(() => {
    const owner = Symbol('actions');
    set([...registered, { owner, actions }]);
    const onKey = (event: KeyboardEvent) => {
      const pressed = keyOf(event);
      const action = actions.find((one) => one.keys === pressed);
      if (!action || document.querySelector('dialog[open], [role=dialog]')) return;
      event.preventDefault();
      action.run();
    };
    window.addEventListener('keydown', onKey);
    return () => {
      window.removeEventListener('keydown', onKey);
      set(registered.filter((one) => one.owner !== owner));
    };
  }, [actions]);
}
