'use client';

import { useQuery } from '@tanstack/react-query';
import { Command } from 'cmdk';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { covers, type Role } from '@/core/access';
import { addressOf } from '@/core/filter/address';
import { api } from '../data/api';
import { useRole } from '../data/me';
import { useActions } from './actions';
import { toggleTheme } from './theme';

type Place = {
  label: string;
  hint: string;
  keys?: string;
  /** Whom it is for; everybody when left out. */
  least?: Role;
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
  const places: Place[] = [
    { label: 'Inventory', hint: 'All items and their listings', run: go('/') },
    { label: 'New item', hint: 'Record something', run: newItem },
    { label: 'New item from …', hint: 'The last, another, a template, a catalogue', run: newFrom },
    { label: 'Batches', hint: 'Piles that came in together, scanned piece by piece', run: go('/batches') },
    { label: 'Consignments', hint: 'Stock sent in to a marketplace’s warehouse', run: go('/consignments') },
    {
      label: 'Artwork',
      least: 'seller',
      hint: 'Pictures for products, and the grounds they suit',
      run: go('/artwork'),
    },
    { label: 'Sets', least: 'seller', hint: 'Bought whole, taken apart, sold in parts', run: go('/kits') },
    { label: 'Labels', hint: 'For items, prices, shelves, and commands for scanning', run: go('/labels') },
    { label: 'Outbox', least: 'seller', hint: 'What is planned, under way, done and failed', run: go('/outbox') },
    {
      label: 'Differences',
      least: 'seller',
      hint: 'What marketplaces show otherwise than sent',
      run: go('/differences'),
    },
    { label: 'Renewal', least: 'seller', hint: 'End listings and make them anew', run: go('/renewals') },
    { label: 'Links', least: 'seller', hint: 'Stock numbers and the marketplaces’ numbers', run: go('/links') },
    { label: 'Photos', hint: 'What is missing, folders of files, badges', run: go('/photos') },
    { label: 'Bring in', least: 'seller', hint: 'What is listed on your accounts already', run: go('/bring-in') },
    { label: 'Copy a shop', least: 'seller', hint: 'From one marketplace to another', run: go('/copies') },
    { label: 'Files', least: 'seller', hint: 'Write out to spreadsheets, read in', run: go('/files') },
    { label: 'Marketplaces', least: 'seller', hint: 'Accounts, defaults, rules', run: go('/marketplaces') },
    { label: 'Templates', least: 'seller', hint: 'Texts chosen by rule', run: go('/templates') },
    { label: 'Routines', least: 'seller', hint: 'Kept changes, by hand or by plan', run: go('/routines') },
    { label: 'Postage', least: 'seller', hint: 'Boxes, carriers, exchange rates', run: go('/postage') },
    { label: 'Settings', least: 'seller', hint: 'Stock numbers, fields of your own', run: go('/settings') },
    { label: 'People', least: 'owner', hint: 'Who works here, as what, invitations', run: go('/people') },
    { label: 'You', hint: 'Password, second step, where you are signed in', run: go('/you') },
    { label: 'Insights', least: 'seller', hint: 'What was sold, what it left, what lies here', run: go('/insights') },
    { label: 'Sales', least: 'seller', hint: 'Orders from everywhere', run: go('/sales') },
    { label: 'Attention', least: 'seller', hint: 'What needs a person, by cause', run: go('/attention') },
    { label: 'Light or dark', hint: 'Change the theme', run: toggleTheme },
    { label: 'Shortcuts', hint: 'Keys that work here', run: help },
  ];

  const groups: { heading: string; places: Place[] }[] = [
    { heading: 'On this page', places: actions },
    { heading: 'Places', places: places.filter(({ least = 'packer' }) => covers(role, least)) },
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
        <Command.Empty className="quiet px-2 py-4">Nothing of that name</Command.Empty>
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
      </Command.List>
    </Command.Dialog>
  );
}
