'use client';

import { useRef, useState } from 'react';
import type { Interface } from '@/http/interface';
import { addressOf } from '../data/api';
import { useSells } from '../data/me';
import { useEscape } from '../frame/use-escape';

const fileFormats = [
  ['csv', 'CSV'],
  ['xlsx', 'XLSX'],
  ['json', 'JSON'],
  ['ndjson', 'NDJSON'],
  ['xml', 'XML'],
] as const;

/** Every list that there is a file of. */
type Listed = Extract<keyof Interface, `GET ${string}/file`>;

/** All rows of a list as a file, by the filters that its page has just now. */
export function AsFile<N extends Listed>({
  of,
  what,
  params,
  query,
}: {
  of: N;
  /** What is in the file, in words. */
  what: string;
  params?: Record<string, number>;
  query?: { [Key in keyof NonNullable<Interface[N]['query']>]?: NonNullable<Interface[N]['query']>[Key] | null };
}) {
  const [isOpen, setIsOpen] = useState(false);
  const box = useRef<HTMLDivElement>(null);
  const sells = useSells();
  const close = () => setIsOpen(false);
  useEscape(isOpen, close);
  if (!sells) return null;
  return (
    <div
      ref={box}
      role="group"
      className="relative ml-auto [.ml-auto~&]:ml-0"
      onBlur={({ relatedTarget }) => {
        if (!(relatedTarget instanceof Node && box.current?.contains(relatedTarget))) close();
      }}
    >
      <button
        type="button"
        className="btn btn-ghost btn-sm"
        aria-expanded={isOpen}
        aria-label={`${what} as a file`}
        // Some browsers give a button that is pressed no focus, and what has none cannot lose it.
        onClick={({ currentTarget }) => {
          currentTarget.focus();
          setIsOpen(!isOpen);
        }}
      >
        As a file
      </button>
      {isOpen ? (
        <ul className="absolute right-0 z-30 mt-1 w-28 rounded border border-base-300 bg-base-100 p-1 text-[13px] shadow">
          {fileFormats.map(([format, label]) => (
            <li key={format}>
              <a
                className="block rounded px-2 py-1 hover:bg-base-200 focus-visible:bg-base-200"
                aria-label={`${what} as ${label}`}
                download
                href={`/api/v1${addressOf(of.slice('GET '.length), { params, query: { ...query, format } })}`}
                onClick={close}
              >
                {label}
              </a>
            </li>
          ))}
        </ul>
      ) : null}
    </div>
  );
}
