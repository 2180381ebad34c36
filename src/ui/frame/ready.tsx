'use client';

import { useEffect } from 'react';
import { readyEvent } from './early-clicks';

/** Says that the page's code is there. */
export function Ready() {
  useEffect(() => void window.dispatchEvent(new Event(readyEvent)), []);
  return null;
}
