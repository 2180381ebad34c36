'use client';

import { LayoutGrid, SunMoon } from 'lucide-react';
import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';
import { newSheet } from '../data/new-sheet';
import { isWriting } from './is-writing';
import { useLoneLetter } from './lone-letter';
import type { Places } from './places';
import { useNotice } from './providers';
import { toggleTheme } from './theme';

// Fetched when they are opened, so that no page waits for them.
const importPlaces = () => import('./places');
const Shortcuts = dynamic(() => import('./shortcuts').then((module) => module.Shortcuts));
const NewFrom = dynamic(() => import('./new-from').then((module) => module.NewFrom));

/** Everything that is not a stage of the work, behind one button and one key. */
export function Launcher() {
  const router = useRouter();
  const notice = useNotice();
  const [places, setPlaces] = useState<{ Dialog: typeof Places } | null>(null);
  /** What is typed until the places have the focus; null once they have. No letter is lost, and none is a shortcut. */
  const typed = useRef<string | null>(null);
  const open = useCallback(async () => {
    typed.current ??= '';
    try {
      const { Places: Dialog } = await importPlaces();
      setPlaces({ Dialog });
    } catch {
      // What does not come must not swallow what is typed.
      typed.current = null;
      notice('The list of places could not be fetched: try again');
    }
  }, [notice]);
  const taken = useCallback(() => {
    const text = typed.current ?? '';
    typed.current = null;
    return text;
  }, []);
  const [help, setHelp] = useState(false);
  const [newFrom, setNewFrom] = useState(false);
  // Nothing is stored by that: an item is with the first thing that is said of it.
  const newItem = useCallback(() => router.push(newSheet()), [router]);
  useLoneLetter({ n: newItem, N: () => setNewFrom(true) });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      // Half of its key is pressed: it is there with the other half.
      if (event.key === 'Control' || event.key === 'Meta') void importPlaces();
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        if (document.querySelector('[data-places]')) setPlaces(null);
        else void open();
      } else if (typed.current !== null && event.key.length === 1) {
        event.preventDefault();
        typed.current += event.key;
      } else if (event.key === '?' && !isWriting(event.target) && !event.ctrlKey && !event.metaKey && !event.altKey)
        setHelp(true);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [open]);

  return (
    <>
      <button type="button" id="new-item" className="btn btn-primary btn-sm" onClick={newItem}>
        New item
      </button>
      <button
        type="button"
        className="btn btn-sm"
        onClick={() => void open()}
        onPointerEnter={() => void importPlaces()}
        aria-haspopup="dialog"
      >
        <LayoutGrid size={15} aria-hidden="true" /> Go to <kbd className="kbd kbd-xs max-md:hidden">Ctrl K</kbd>
      </button>
      <button
        type="button"
        className="btn btn-ghost btn-sm btn-square"
        aria-label="Light or dark"
        onClick={toggleTheme}
      >
        <SunMoon size={15} aria-hidden="true" />
      </button>
      {places ? (
        <places.Dialog
          taken={taken}
          close={() => {
            taken();
            setPlaces(null);
          }}
          newItem={newItem}
          newFrom={() => setNewFrom(true)}
          help={() => setHelp(true)}
        />
      ) : null}
      {help ? <Shortcuts close={() => setHelp(false)} /> : null}
      {newFrom ? <NewFrom close={() => setNewFrom(false)} /> : null}
    </>
  );
}
