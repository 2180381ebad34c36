'use client';

import { PageHead } from '@/ui/controls/states';
import { useRole } from '@/ui/data/me';
import { ConditionNotes } from './condition-notes';
import { CustomFields } from './custom-fields';
import { DailySummary } from './daily-summary';
import { Glossary } from './glossary';
import { KeptFor } from './kept-for';
import { LookUpSettings } from './look-ups';
import { LookedAt } from './looked-at';
import { Packing } from './packing';
import { StockNumbers } from './stock-numbers';

/** What holds for the whole shop. */
export function Settings() {
  const isOwner = useRole() === 'owner';
  return (
    <>
      <PageHead title="Settings" />
      <div className="grid max-w-5xl grid-cols-[minmax(0,1fr)] gap-8 p-4">
        <StockNumbers />
        <ConditionNotes />
        <Glossary />
        <LookUpSettings />
        <Packing />
        <LookedAt />
        {isOwner ? <DailySummary /> : null}
        <KeptFor />
        <CustomFields />
      </div>
    </>
  );
}
