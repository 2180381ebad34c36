'use client';

import { type ReactNode, useSyncExternalStore } from 'react';

const never = () => () => undefined;

/**
 * Shows its content once the page listens to keys and typing: what can be seen before would swallow what is typed into
 * it. The data is there already, so nothing is waited for but the page's own script.
 */
export function Listening({ children }: { children: ReactNode }) {
  const listens = useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
  return listens ? children : null;
}
