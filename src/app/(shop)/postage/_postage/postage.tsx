'use client';

import { PageHead } from '@/ui/controls/states';
import { Boxes } from './boxes';
import { Quotes } from './quotes';
import { Rates } from './rates';

/** Boxes of one's own, what carriers ask, exchange rates with their day. */
export function Postage() {
  return (
    <>
      <PageHead title="Postage and rates" />
      <div className="grid grid-cols-3 gap-6 p-4 max-lg:grid-cols-1">
        <Boxes />
        <Quotes />
        <Rates />
      </div>
    </>
  );
}
