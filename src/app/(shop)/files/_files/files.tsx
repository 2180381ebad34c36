'use client';

import { PageHead } from '@/ui/controls/states';
import { ReadIn } from './read-in';
import { WriteOut } from './write-out';

/** Files out and in, side by side. */
export function FilesPage() {
  return (
    <div className="flex flex-col lg:h-[calc(100dvh-var(--frame))]">
      <PageHead title="Files">
        <p className="quiet">Write the inventory out, change it in a spreadsheet, read it in again.</p>
      </PageHead>
      <div className="grid min-h-0 flex-1 grid-cols-2 divide-x divide-base-300 max-lg:grid-cols-1 max-lg:overflow-auto">
        <WriteOut />
        <ReadIn />
      </div>
    </div>
  );
}
