'use client';

import type { ReactNode } from 'react';
import { useListens } from './use-listens';

/**
 * Shows its content once the page listens to keys and typing: what can be seen before would swallow what is typed into
 * it. The data is there already, so nothing is waited for but the page's own script.
 */
export function Listening({ children }: { children: ReactNode }) {
  return useListens() ? children : null;
}
