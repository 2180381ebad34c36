'use client';

import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import { formatMoney, homeCurrency } from '@/core/measure/money';
import { type AgainstOffer, priceAgainst } from '@/core/price/against-offer';
import type { LineView } from '@/services/intake/line-view';
import { api } from '@/ui/data/api';
import { usePageActions } from '@/ui/frame/actions';

/** A piece that stays in the hand so long is looked at; whoever scans on is not kept. */
const restMs = 700;
const shipsWords: Record<string, string> = { warehouse: 'from the warehouse', self: 'by the seller' };
const money = (amount: number) => formatMoney(amount, homeCurrency);

/** What others offer of the piece in the hand: one of them is taken as the price, matched or undercut, by a key. */
export function Offers({ line, setPrice }: { line: LineView; setPrice: (price: number) => void }) {
  const [isResting, setIsResting] = useState(false);
  const [chosen, choose] = useState(0);
  useEffect(() => {
    const timer = setTimeout(() => setIsResting(line.isDone), restMs);
    return () => clearTimeout(timer);
  }, [line.isDone]);
  const { data } = useQuery({
    queryKey: ['line-offers', line.id],
    queryFn: () => api('GET /batch-lines/{id}/offers', { params: { id: line.id } }),
    enabled: isResting && line.kind === 'item' && !line.isUndone,
    staleTime: 60_000,
  });
  const offers = data?.offers ?? [];
  const set = (how: AgainstOffer) => {
    const offer = offers[chosen];
    if (offer) setPrice(priceAgainst(offer, how, 0));
  };
  const latest = useRef(set);
  latest.current = set;
  const count = useRef(0);
  count.current = offers.length;
  const actions = useMemo(
    () => [
      {
        label: 'Take the offer’s price',
        hint: 'As the price of this piece',
        keys: 'Alt T',
        run: () => latest.current('take'),
      },
      { label: 'Match the offer', hint: 'The same with delivery', keys: 'Alt M', run: () => latest.current('match') },
      {
        label: 'Undercut the offer',
        hint: 'One percent less with delivery',
        keys: 'Alt U',
        run: () => latest.current('undercut'),
      },
      {
        label: 'Next offer',
        hint: 'To take, match or undercut',
        keys: 'Alt O',
        run: () => choose((now) => (count.current ? (now + 1) % count.current : 0)),
      },
    ],
    [],
  );
  usePageActions(actions);
  if (offers.length === 0) return null;
  return (
    <section aria-label="Offered now" className="mt-2 text-[13px]">
      <p className="quiet">
        Offered now. Take <kbd className="kbd kbd-xs">Alt T</kbd> match <kbd className="kbd kbd-xs">Alt M</kbd> undercut{' '}
        <kbd className="kbd kbd-xs">Alt U</kbd> next <kbd className="kbd kbd-xs">Alt O</kbd>
      </p>
      <ul className="grid grid-cols-2 gap-x-4 max-md:grid-cols-1">
        {offers.slice(0, 6).map((offer, index) => (
          <li key={`${offer.from}/${index}`}>
            <button
              type="button"
              aria-pressed={index === chosen}
              className={`flex w-full items-baseline gap-2 rounded px-1 text-left ${index === chosen ? 'bg-base-300' : ''}`}
              onClick={() => choose(index)}
            >
              <span className="figures w-16 text-right font-medium">{money(offer.price)}</span>
              <span className="figures quiet w-20">
                {offer.delivery ? `+ ${money(offer.delivery)}` : 'no delivery'}
              </span>
              <span className="min-w-0 truncate">
                {offer.condition} {shipsWords[offer.ships] ?? offer.ships} <span className="quiet">{offer.from}</span>
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
