'use client';

import { useMemo, useRef } from 'react';
import type { Command } from '@/core/batch/command';
import { usePageActions } from '@/ui/frame/actions';

/** The commands of the scan field by keys. */
export function useScanKeys(run: (command: Command) => void): void {
  const latest = useRef(run);
  latest.current = run;
  const actions = useMemo(() => {
    const action = (label: string, hint: string, keys: string, command: Command) => ({
      label,
      hint,
      keys,
      run: () => latest.current(command),
    });
    return [
      action('Take the last one back', 'Also Ctrl Z', 'Alt Z', { do: 'undo' }),
      action('The same again', 'One more of the last', 'Alt A', { do: 'again' }),
      action('Next place', 'A new box', 'Alt B', { do: 'box' }),
      ...Array.from({ length: 9 }, (_, index) =>
        action(`Sentence ${index + 1}`, 'On or off', `Alt ${index + 1}`, { do: 'snippet', number: index + 1 }),
      ),
    ];
  }, []);
  usePageActions(actions);
}
