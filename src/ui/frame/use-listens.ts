'use client';

import { useSyncExternalStore } from 'react';

const never = () => () => undefined;

/**
 * Whether the page's own script runs already. While what the server sent is taken over it does not: what is shown then
 * must be what the server could show.
 */
export const useListens = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
