import { useEffect, useRef } from 'react';
import { isWriting } from './is-writing';

/** How long no other character may come before and after a letter that is a command, in milliseconds. */
const alone = 250;
const kept = 'netting.no-letters';

/** Whether single letters are commands at all; people who speak to their machine, or whose hand slips, switch them off. */
export const lettersWork = (): boolean => localStorage.getItem(kept) === null;
export const setLettersWork = (work: boolean): void =>
  work ? localStorage.removeItem(kept) : localStorage.setItem(kept, '1');

/**
 * Calls back for a letter that is pressed by itself, with no field, dialog or list to take it. Letters of a word that is
 * typed where nothing takes it are no commands.
 */
export function useLoneLetter(commands: Record<string, () => void>): void {
  const latest = useRef(commands);
  latest.current = commands;
  useEffect(() => {
    let before = Number.NEGATIVE_INFINITY;
    let waiting: ReturnType<typeof setTimeout> | undefined;
    const onKey = (event: KeyboardEvent) => {
      if (event.key.length !== 1 || event.ctrlKey || event.metaKey || event.altKey) return;
      const isInWord = event.timeStamp - before < 2 * alone || event.repeat;
      if (/[\p{L}\p{N}]/u.test(event.key)) before = event.timeStamp;
      clearTimeout(waiting);
      const isTaken =
        event.defaultPrevented || isWriting(event.target) || document.querySelector('[role=dialog], dialog[open]');
      if (isInWord || isTaken || !Object.hasOwn(latest.current, event.key) || !lettersWork()) return;
      waiting = setTimeout(() => latest.current[event.key]?.(), alone);
    };
    window.addEventListener('keydown', onKey);
    return () => {
      clearTimeout(waiting);
      window.removeEventListener('keydown', onKey);
    };
  }, []);
}
