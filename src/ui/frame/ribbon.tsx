'use client';

import { useQuery } from '@tanstack/react-query';
import Link from 'next/link';
import { usePathname, useSearchParams } from 'next/navigation';
import type { StageCounts } from '@/services/records/items/count-stages';
import { api } from '../data/api';

const stages: { id: keyof StageCounts; label: string; href: string }[] = [
  { id: 'intake', label: 'Intake', href: '/?stage=intake' },
  { id: 'drafts', label: 'Drafts', href: '/?stage=drafts' },
  { id: 'ready', label: 'Ready', href: '/?stage=ready' },
  { id: 'live', label: 'Live', href: '/?stage=live' },
  { id: 'changed', label: 'Changed', href: '/changed' },
  { id: 'drift', label: 'Differences', href: '/differences' },
  { id: 'attention', label: 'Attention', href: '/attention' },
  { id: 'sold', label: 'Sold', href: '/sales' },
];

/** The work from left to right, each stage with its live count: navigation and dashboard at once. */
export function Ribbon() {
  const { data } = useQuery({
    queryKey: ['stages'],
    queryFn: () => api('GET /stages'),
    refetchInterval: 8_000,
  });
  const path = usePathname();
  const stage = useSearchParams().get('stage');
  return (
    <nav aria-label="Stages of the work" className="min-w-0 flex-1 overflow-x-auto max-md:order-last max-md:basis-full">
      <ol className="flex items-stretch">
        {stages.map(({ id, label, href }, index) => {
          const here = (path === '/' && stage === id) || (href !== '/' && !href.includes('?') && path === href);
          return (
            <li key={id} className="flex items-center">
              {index > 0 ? <span aria-hidden="true" className="h-px w-3 bg-base-300" /> : null}
              <Link
                // What each page shows is read when one goes there: fetched before, it would be of before, and ten pages
                // would be made on the server each time that one is opened.
                prefetch={false}
                href={href}
                aria-current={here ? 'page' : undefined}
                className={`flex items-baseline gap-1.5 border-b-2 px-1.5 py-2 whitespace-nowrap hover:border-base-content ${here ? 'border-base-content font-semibold' : 'border-transparent'}`}
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
