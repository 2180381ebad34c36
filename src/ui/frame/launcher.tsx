'use client';

import { LayoutGrid, SunMoon } from 'lucide-react';
import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { api } from '../data/api';
import { useCommand } from '../data/use-command';
import { isWriting } from './is-writing';
import { toggleTheme } from './theme';

// Fetched when they are opened, so that no page waits for them.
const importPlaces = () => import('./places').then((module) => module.Places);
const Places = dynamic(importPlaces);
const Shortcuts = dynamic(() => import('./shortcuts').then((module) => module.Shortcuts));
const NewFrom = dynamic(() => import('./new-from').then((module) => module.NewFrom));

/** Everything that is not a stage of the work, behind one button and one key. */
export function Launcher() {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [help, setHelp] = useState(false);
  const [newFrom, setNewFrom] = useState(false);
  const newItem = useCommand(
    async () => {
      const { id } = await api('POST /items', { body: {} });
      router.push(`/items/${id}`);
      return undefined;
    },
    { touches: [['stages']], tells: true },
  );
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      // Half of its key is pressed: it is there with the other half.
      if (event.key === 'Control' || event.key === 'Meta') void importPlaces();
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        setOpen((now) => !now);
      } else if (!isWriting(event.target) && !event.ctrlKey && !event.metaKey && !event.altKey) {
        if (event.key === '?') setHelp(true);
        if (event.key === 'N' && !document.querySelector('[role=dialog], dialog[open]')) {
          event.preventDefault();
          setNewFrom(true);
        }
        if (event.key === 'n' && !document.querySelector('[role=dialog]')) document.getElementById('new-item')?.click();
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);

  return (
    <>
      <button
        type="button"
        id="new-item"
        className="btn btn-primary btn-sm"
        disabled={newItem.busy}
        onClick={() => void newItem.run()}
      >
        New item
      </button>
      <button
        type="button"
        className="btn btn-sm"
        onClick={() => setOpen(true)}
        onPointerEnter={() => void importPlaces()}
        aria-haspopup="dialog"
      >
        <LayoutGrid size={15} aria-hidden="true" /> Go to <kbd className="kbd kbd-xs">Ctrl K</kbd>
      </button>
      <button
        type="button"
        className="btn btn-ghost btn-sm btn-square"
        aria-label="Light or dark"
        onClick={toggleTheme}
      >
        <SunMoon size={15} aria-hidden="true" />
      </button>
      {open ? (
        <Places
          close={() => setOpen(false)}
          newItem={() => void newItem.run()}
          newFrom={() => setNewFrom(true)}
          help={() => setHelp(true)}
        />
      ) : null}
      {help ? <Shortcuts close={() => setHelp(false)} /> : null}
      {newFrom ? <NewFrom close={() => setNewFrom(false)} /> : null}
    </>
  );
}
