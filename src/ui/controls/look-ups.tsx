'use client';

import { useQuery } from '@tanstack/react-query';
import { lookUpAddress } from '@/core/item/look-up';
import { api } from '../data/api';

type Facts = Parameters<typeof lookUpAddress>[1];

/** Look-ups of one's own for an item, each opened beside in a page of its own. */
export function LookUps({ facts }: { facts: Facts }) {
  const { data } = useQuery({ queryKey: ['settings'], queryFn: () => api('GET /settings'), staleTime: 30_000 });
  const links = (data?.lookUps ?? []).flatMap((one) => {
    const href = lookUpAddress(one, facts);
    return href ? [{ name: one.name, href }] : [];
  });
  if (links.length === 0) return null;
  return (
    <p className="flex flex-wrap gap-x-3 text-[13px]">
      <span className="quiet">Look it up:</span>
      {links.map((one) => (
        <a key={one.name} className="link" href={one.href} target="_blank" rel="noreferrer noopener">
          {one.name}
        </a>
      ))}
    </p>
  );
}
