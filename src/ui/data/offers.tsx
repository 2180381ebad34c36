'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { amountToText, formatMoney, parseAmount } from '@/core/measure/money';
import type { OfferView } from '@/services/sync/find-offers';
import { Price } from '../controls/format';
import { Link } from '../controls/link';
import { When } from '../controls/when';
import { api } from './api';
import { useCommand } from './use-command';

/** Offers that wait for an answer; of one item, or of all. */
export const useOffers = (item?: number) =>
  useQuery({
    queryKey: ['offers', item ?? 'all'],
    queryFn: () => api('GET /offers', { query: item === undefined ? {} : { item } }),
    refetchInterval: 5_000,
  });

const touched = { touches: [['offers'], ['stages'], ['sheet']], tells: true };

/** One offer: what would be left of it, until when, in the buyer's words; taken, countered or declined from here. */
export function OfferRow({ offer, isOfItem = false }: { offer: OfferView; isOfItem?: boolean }) {
  const [counter, setCounter] = useState<string | null>(null);
  const { id, currency } = offer;
  const answer = useCommand(async (how: 'accept' | 'decline') => {
    await api('POST /offers/{id}/answer', { params: { id }, body: { answer: how } });
    return how === 'accept'
      ? `Taken: ${offer.accountName} makes an order of it`
      : `The offer of ${formatMoney(offer.amount, currency)} is declined`;
  }, touched);
  const send = useCommand(async (text: string) => {
    const amount = parseAmount(text, currency);
    if (amount === null) throw new Error('What you would take is not understood; write it as in 42.50');
    await api('POST /offers/{id}/answer', { params: { id }, body: { answer: 'counter', amount } });
    setCounter(null);
    return `The buyer is told that you would take ${formatMoney(amount, currency)}`;
  }, touched);
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1.5" data-offer={id}>
      <b className="figures">
        <Price amount={offer.amount} currency={currency} />
      </b>
      <span>
        for{' '}
        {isOfItem ? (
          offer.accountName
        ) : (
          <>
            <Link className="underline" href={`/items/${offer.itemId}`}>
              {offer.title || offer.sku}
            </Link>{' '}
            on {offer.accountName}
          </>
        )}
        {offer.asked === null ? null : (
          <span className="quiet">
            , asked <Price amount={offer.asked} currency={currency} />
          </span>
        )}
      </span>
      <span className="quiet">
        {offer.buyer}
        {offer.words ? `: “${offer.words}”` : ''}
      </span>
      <span>
        leaves <Price amount={offer.net} currency={currency} tone /> ({(offer.margin / 100).toFixed(0)} %)
      </span>
      <span className="quiet">
        until <When at={offer.deadline} />
      </span>
      <span className="ml-auto flex items-center gap-1.5">
        {offer.state === 'countered' && offer.counter !== null ? (
          <span className="quiet">
            you would take <Price amount={offer.counter} currency={currency} />; the buyer answers
          </span>
        ) : counter === null ? (
          <>
            <button type="button" className="btn btn-primary btn-sm" onClick={() => void answer.run('accept')}>
              Accept
            </button>
            <button
              type="button"
              className="btn btn-sm"
              onClick={() => setCounter(amountToText(offer.asked ?? offer.amount, currency))}
            >
              Counter
            </button>
            <button type="button" className="btn btn-sm" onClick={() => void answer.run('decline')}>
              Decline
            </button>
          </>
        ) : (
          <form
            className="flex items-center gap-1.5"
            onSubmit={(event) => {
              event.preventDefault();
              void send.run(counter);
            }}
          >
            <input
              // biome-ignore lint/a11y/noAutofocus: opened by the person who is going to write in it
              autoFocus
              aria-label={`What you would take, ${currency}`}
              className="input input-sm figures w-24"
              inputMode="decimal"
              value={counter}
              onChange={(event) => setCounter(event.target.value)}
            />
            <button type="submit" className="btn btn-primary btn-sm">
              Say it
            </button>
            <button type="button" className="btn btn-ghost btn-sm" onClick={() => setCounter(null)}>
              Cancel
            </button>
          </form>
        )}
      </span>
    </li>
  );
}
