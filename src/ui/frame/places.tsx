'use client';

import { useQuery } from '@tanstack/react-query';
import { Command } from 'cmdk';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { covers } from '@/core/access';
import { addressOf } from '@/core/filter/address';
import { useAccounts } from '../data/accounts';
import { api } from '../data/api';
import { useRole } from '../data/me';
import { useActions } from './actions';
import { type PageOf, pages, partsOfPages } from './place-list';
import { toggleTheme } from './theme';

type Place = {
  label: string;
  hint: string;
  keys?: string;
  run: () => void;
};

type Props = {
  /** What was typed before it had the focus; from then on it is typed here. */
  taken: () => string;
  close: () => void;
  newItem: () => void;
  newFrom: () => void;
  help: () => void;
};

/** Every place there is to go, every kept search, and what can be done on this page. */
export function Places({ taken, close, newItem, newFrom, help }: Props) {
  const router = useRouter();
  const [text, setText] = useState('');
  const actions = useActions();
  const role = useRole();
  const go = (path: string) => () => router.push(path);
  const searches = useQuery({
    queryKey: ['searches'],
    queryFn: () => api('GET /searches'),
    staleTime: 10_000,
  });
  const kept = (searches.data?.searches ?? []).map(({ name, filter, sort, dir }): Place => {
    const address = Object.entries({ ...addressOf(filter), sort, dir });
    return { label: name, hint: 'Kept search', run: go(`/?${new URLSearchParams(address)}`) };
  });
  const { accounts } = useAccounts();
  const toPlaces = (some: readonly PageOf[]) =>
    some
      .filter(({ least = 'packer' }) => covers(role, least))
      .map(({ href, ...one }): Place => ({ ...one, run: go(href) }));
  const said = text.trim();
  const [inventory, ...others] = toPlaces(pages);
  const places: Place[] = [
    ...(inventory ? [inventory] : []),
    { label: 'New item', hint: 'Record something', run: newItem },
    { label: 'New item from …', hint: 'The last, another, a template, a catalogue', run: newFrom },
    ...others,
    { label: 'Light or dark', hint: 'Change the theme', run: toggleTheme },
    { label: 'Shortcuts', hint: 'Keys that work here', run: help },
  ];
  // What would make the list longer than one looks over comes with what is typed.
  const parts: Place[] = said
    ? [
        ...toPlaces(partsOfPages),
        ...(covers(role, 'seller') ? accounts : []).map(
          (one): Place => ({
            label: one.name,
            hint: `Account on ${one.marketName}`,
            run: go(`/marketplaces/${one.id}`),
          }),
        ),
      ]
    : [];

  const groups: { heading: string; places: Place[] }[] = [
    { heading: 'On this page', places: actions },
    { heading: 'Places', places },
    { heading: 'Parts and accounts', places: parts },
    { heading: 'Kept searches', places: kept },
  ];

  return (
    <Command.Dialog
      open
      onOpenChange={(now) => !now && close()}
      label="Go to"
      overlayClassName="fixed inset-0 z-40 bg-black/30"
      contentClassName="fixed top-14 left-1/2 z-50 w-[58rem] max-w-[94vw] -translate-x-1/2 rounded border border-base-300 bg-base-100 shadow-xl"
    >
      <Command.Input
        data-places
        value={text}
        onValueChange={setText}
        onFocus={() => setText((now) => now + taken())}
        placeholder="Where to?"
        className="w-full border-b border-base-300 bg-transparent px-4 py-3 outline-none"
      />
      <Command.List className="max-h-[calc(100vh-9rem)] overflow-auto p-2">
        {groups
          .filter((group) => group.places.length > 0)
          .map((group) => (
            <Command.Group
              key={group.heading}
              heading={group.heading}
              // In columns that are read, and walked through, from top to bottom: all there is stands in sight.
              className="pb-1 [&_[cmdk-group-heading]]:quiet [&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:text-[12px] [&_[cmdk-group-items]]:md:columns-2 [&_[cmdk-group-items]]:gap-2"
            >
              {group.places.map((place) => (
                <Command.Item
                  key={`${place.label}/${place.hint}`}
                  value={`${place.label} ${place.hint}`}
                  onSelect={() => {
                    close();
                    place.run();
                  }}
                  className="flex cursor-pointer break-inside-avoid items-baseline gap-2 rounded px-2 py-1 data-[selected=true]:bg-base-200"
                >
                  <span className="shrink-0 font-medium">{place.label}</span>
                  <span className="quiet min-w-0 truncate text-[12px]">{place.hint}</span>
                  {place.keys ? <kbd className="kbd kbd-xs ml-auto shrink-0">{place.keys}</kbd> : null}
                </Command.Item>
              ))}
            </Command.Group>
          ))}
        {said ? (
          // Whatever was typed: the inventory may hold it.
          <Command.Group forceMount>
            <Command.Item
              forceMount
              value={`inventory ${said}`}
              onSelect={() => {
                close();
                router.push(`/?${new URLSearchParams({ q: said })}`);
              }}
              className="cursor-pointer rounded px-2 py-1 data-[selected=true]:bg-base-200"
            >
              Look for <span className="font-medium">{said}</span> in the inventory
            </Command.Item>
          </Command.Group>
        ) : null}
      </Command.List>
    </Command.Dialog>
  );
}
