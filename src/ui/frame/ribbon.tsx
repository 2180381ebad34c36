'use client';

import { useQuery } from '@tanstack/react-query';
import { usePathname, useSearchParams } from 'next/navigation';
import { useCallback, useState } from 'react';
import { covers, type Role } from '@/core/access';
import type { StageCounts } from '@/services/records/items/count-stages';
import { Link } from '../controls/link';
import { api } from '../data/api';
import { useRole } from '../data/me';
import { useEscape } from './use-escape';
import { useListens } from './use-listens';

const stages: { id: keyof StageCounts; label: string; href: string; least?: Role }[] = [
  { id: 'intake', label: 'Intake', href: '/?stage=intake' },
  { id: 'drafts', label: 'Drafts', href: '/?stage=drafts' },
  { id: 'ready', label: 'Ready', href: '/?stage=ready' },
  { id: 'live', label: 'Live', href: '/?stage=live' },
  { id: 'changed', label: 'Changed', href: '/changed', least: 'seller' },
  { id: 'drift', label: 'Differences', href: '/differences', least: 'seller' },
  { id: 'attention', label: 'Attention', href: '/attention', least: 'seller' },
  { id: 'sold', label: 'Sold', href: '/sales', least: 'seller' },
];

/** The work from left to right, each stage with its live count: navigation and dashboard at once. */
export function Ribbon() {
  const stagesNow = useQuery({
    queryKey: ['stages'],
    queryFn: () => api('GET /stages'),
    refetchInterval: 8_000,
  });
  // The counts follow the page: they may be here before it is taken over, and were not where it was drawn.
  const data = useListens() ? stagesNow.data : undefined;
  const role = useRole();
  const shown = stages.filter(({ least = 'packer' }) => covers(role, least));
  const path = usePathname();
  const stage = useSearchParams().get('stage');
  // On a phone they are a list behind one button.
  const [isOpen, setIsOpen] = useState(false);
  const close = useCallback(() => setIsOpen(false), []);
  useEscape(isOpen, close);
  return (
    <nav aria-label="Stages of the work" className="min-w-0 flex-1 md:overflow-x-auto">
      <button
        type="button"
        className="btn btn-sm btn-ghost md:hidden"
        aria-expanded={isOpen}
        aria-controls="stages"
        onClick={() => setIsOpen((now) => !now)}
      >
        Stages
        {data && data.attention > 0 && covers(role, 'seller') ? (
          <span className="figures mono font-semibold text-warning" title="Need a person">
            {data.attention.toLocaleString('en')}
          </span>
        ) : null}
      </button>
      <ol
        id="stages"
        className={`flex items-stretch max-md:absolute max-md:inset-x-0 max-md:top-full max-md:flex-col max-md:border-b max-md:border-base-300 max-md:bg-base-100 max-md:px-4 max-md:py-1 max-md:shadow-xl ${isOpen ? '' : 'max-md:hidden'}`}
      >
        {shown.map(({ id, label, href }, index) => {
          const here = (path === '/' && stage === id) || (href !== '/' && !href.includes('?') && path === href);
          return (
            <li key={id} className="flex items-center">
              {index > 0 ? <span aria-hidden="true" className="h-px w-3 bg-base-300 max-md:hidden" /> : null}
              <Link
                href={href}
                onClick={close}
                aria-current={here ? 'page' : undefined}
                className={`flex items-baseline gap-1.5 border-b-2 px-1.5 py-2 whitespace-nowrap max-md:grow max-md:justify-between max-md:py-2.5 hover:border-base-content ${here ? 'border-base-content font-semibold' : 'border-transparent'}`}
              >
                <span>{label}</span>
                <span
                  className={`figures mono ${id === 'attention' && data && data.attention > 0 ? 'font-semibold text-warning' : 'quiet'}`}
                >
                  {data ? data[id].toLocaleString('en') : '…'}
                </span>
              </Link>
            </li>
          );
        })}
      </ol>
    </nav>
  );
}
