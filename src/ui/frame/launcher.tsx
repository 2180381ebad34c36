'use client';

import { skipToken, useQuery } from '@tanstack/react-query';
import { Command } from 'cmdk';
import { LayoutGrid, SunMoon } from 'lucide-react';
import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { addressOf } from '@/core/filter/address';
import { api } from '../data/api';
import { useCommand } from '../data/use-command';
import { useActions } from './actions';
import { isWriting } from './is-writing';

const NewFrom = dynamic(() => import('./new-from').then((module) => module.NewFrom));

type Place = { label: string; hint: string; run: () => void };

export function toggleTheme(): void {
  const root = document.documentElement;
  const dark = root.dataset.theme
    ? root.dataset.theme === 'night-quay'
    : matchMedia('(prefers-color-scheme: dark)').matches;
  root.dataset.theme = dark ? 'quay' : 'night-quay';
  localStorage.setItem('netting.theme', root.dataset.theme);
}

const shortcuts: [string, string][] = [
  ['Ctrl K', 'Open the launcher'],
  ['?', 'This list'],
  ['/', 'Search the inventory'],
  ['N', 'New item'],
  ['Shift N', 'New item from the last, another, a template, a catalogue'],
  ['Arrows', 'Move in a grid'],
  ['Space', 'Choose the row under the cursor'],
  ['Shift + arrows', 'Choose a range of rows or knots'],
  ['Ctrl A', 'Choose everything that the filters find'],
  ['Enter', 'Open the item, or edit the cell'],
  ['Alt + arrows', 'On a sheet: from the item’s column to the marketplaces and from row to row'],
  ['Tab', 'In a marketplace’s cell: on to what it proposes'],
  ['Ctrl C, Ctrl V, Ctrl Z', 'Copy, paste and take back in a cell or block'],
  ['Ctrl D', 'Fill a chosen block down'],
  ['Esc', 'Leave the cell, or choose nothing'],
  ['E', 'Change the chosen items'],
  ['P', 'Publish the chosen items'],
];

/** Everything that is not a stage of the work, behind one button and one key. */
export function Launcher() {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [help, setHelp] = useState(false);
  const [newFrom, setNewFrom] = useState(false);
  const actions = useActions();
  const go = (path: string) => () => router.push(path);
  const newItem = useCommand(
    async () => {
      const { id } = await api('POST /items', { body: {} });
      router.push(`/items/${id}`);
      return undefined;
    },
    { touches: [['stages']], tells: true },
  );
  const searches = useQuery({
    queryKey: ['searches'],
    queryFn: open ? () => api('GET /searches') : skipToken,
    staleTime: 10_000,
  });
  const kept = (searches.data?.searches ?? []).map(({ name, filter, sort, dir }): Place => {
    const address = Object.entries({ ...addressOf(filter), sort, dir });
    return { label: name, hint: 'Kept search', run: go(`/?${new URLSearchParams(address)}`) };
  });
  const places: Place[] = [
    { label: 'Inventory', hint: 'All items and their listings', run: go('/') },
    { label: 'New item', hint: 'Record something', run: () => void newItem.run() },
    { label: 'New item from …', hint: 'The last, another, a template, a catalogue', run: () => setNewFrom(true) },
    { label: 'Outbox', hint: 'What is planned, under way, done and failed', run: go('/outbox') },
    { label: 'Differences', hint: 'What marketplaces show otherwise than sent', run: go('/differences') },
    { label: 'Renewal', hint: 'End listings and make them anew', run: go('/renewals') },
    { label: 'Links', hint: 'Stock numbers and the marketplaces’ numbers', run: go('/links') },
    { label: 'Copy a shop', hint: 'From one marketplace to another', run: go('/copies') },
    { label: 'Marketplaces', hint: 'Accounts, defaults, rules', run: go('/marketplaces') },
    { label: 'Templates', hint: 'Texts chosen by rule', run: go('/templates') },
    { label: 'Routines', hint: 'Kept changes, by hand or by plan', run: go('/routines') },
    { label: 'Postage', hint: 'Boxes, carriers, exchange rates', run: go('/postage') },
    { label: 'Settings', hint: 'Stock numbers, fields of your own', run: go('/settings') },
    { label: 'Sales', hint: 'Orders from everywhere', run: go('/sales') },
    { label: 'Attention', hint: 'What needs a person, by cause', run: go('/attention') },
    { label: 'Light or dark', hint: 'Change the theme', run: toggleTheme },
    { label: 'Shortcuts', hint: 'Keys that work here', run: () => setHelp(true) },
  ];

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
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
      <button type="button" className="btn btn-sm" onClick={() => setOpen(true)} aria-haspopup="dialog">
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
      <Command.Dialog
        open={open}
        onOpenChange={setOpen}
        label="Go to"
        overlayClassName="fixed inset-0 z-40 bg-black/30"
        contentClassName="fixed top-24 left-1/2 z-50 w-[32rem] max-w-[94vw] -translate-x-1/2 rounded border border-base-300 bg-base-100 shadow-xl"
      >
        <Command.Input
          placeholder="Where to?"
          className="w-full border-b border-base-300 bg-transparent px-4 py-3 outline-none"
        />
        <Command.List className="max-h-80 overflow-auto p-2">
          <Command.Empty className="quiet px-2 py-4">Nothing of that name</Command.Empty>
          {[
            ...actions.map(({ keys, hint, ...one }) => ({ ...one, hint: keys ? `${hint} (${keys})` : hint })),
            ...places,
            ...kept,
          ].map((place) => (
            <Command.Item
              key={`${place.label}/${place.hint}`}
              value={`${place.label} ${place.hint}`}
              onSelect={() => {
                setOpen(false);
                place.run();
              }}
              className="flex cursor-pointer items-baseline gap-3 rounded px-2 py-1.5 data-[selected=true]:bg-base-200"
            >
              <span className="w-40 shrink-0 font-medium">{place.label}</span>
              <span className="quiet">{place.hint}</span>
            </Command.Item>
          ))}
        </Command.List>
      </Command.Dialog>
      {help ? <Shortcuts close={() => setHelp(false)} /> : null}
      {newFrom ? <NewFrom close={() => setNewFrom(false)} /> : null}
    </>
  );
}

function Shortcuts({ close }: { close: () => void }) {
  const here = useActions().flatMap((one): [string, string][] => (one.keys ? [[one.keys, one.label]] : []));
  return (
    <div
      role="dialog"
      aria-modal="true"
      aria-label="Shortcuts"
      className="fixed inset-0 z-50 grid place-items-center bg-black/30"
      onKeyDown={(event) => event.key === 'Escape' && close()}
    >
      <div className="max-h-[88vh] w-[30rem] max-w-[94vw] overflow-auto rounded border border-base-300 bg-base-100 p-4 shadow-xl">
        <h2 className="mb-3 font-semibold">Shortcuts</h2>
        <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1.5">
          {[...shortcuts, ...here].map(([keys, what]) => (
            <div key={keys} className="contents">
              <dt>
                <kbd className="kbd kbd-sm">{keys}</kbd>
              </dt>
              <dd>{what}</dd>
            </div>
          ))}
        </dl>
        {/* biome-ignore lint/a11y/noAutofocus: a dialog takes the focus when it opens */}
        <button type="button" autoFocus className="btn btn-sm mt-4" onClick={close}>
          Close
        </button>
      </div>
    </div>
  );
}
