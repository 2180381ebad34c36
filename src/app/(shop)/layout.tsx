import { redirect } from 'next/navigation';
import { type ReactNode, Suspense } from 'react';
import { hasOwner } from '@/services/access/set-up-owner';
import { findAccounts } from '@/services/accounts/find-accounts';
import { progress } from '@/services/outbox/sending-progress';
import { stageCounts } from '@/services/records/items/count-stages';
import { Link } from '@/ui/controls/link';
import { Dock } from '@/ui/frame/dock';
import { Launcher } from '@/ui/frame/launcher';
import { Providers } from '@/ui/frame/providers';
import { Ribbon } from '@/ui/frame/ribbon';
import { You } from '@/ui/frame/you';
import { FirstData, whoAsks } from './first-data';

export const dynamic = 'force-dynamic';

/** The frame of every page behind the sign-in: ribbon on top, dock at the foot. */
export default async function ShopLayout({ children }: { children: ReactNode }) {
  const who = await whoAsks();
  if (!who) redirect((await hasOwner()) ? '/sign-in' : '/setup');
  return (
    <Providers>
      <FirstData
        isFrame
        lists={[
          { key: ['me'], read: async () => ({ ...who.actor, role: who.role }) },
          { key: ['stages'], read: () => stageCounts(), isLater: true },
          { key: ['progress'], read: () => progress() },
          { key: ['accounts'], read: () => findAccounts() },
        ]}
      >
        <a href="#main" className="sr-only focus:not-sr-only">
          To the content
        </a>
        <header className="sticky top-0 z-30 flex items-center gap-x-3 border-b border-base-300 bg-base-100 px-4 max-md:gap-x-2 max-md:px-2 max-md:py-1">
          <Link href="/" className="flex items-center gap-2 font-semibold">
            <svg width="20" height="20" viewBox="0 0 32 32" aria-hidden="true">
              <path d="M8 0v32M24 0v32M0 10h32M0 22h32" stroke="currentColor" strokeWidth="2" opacity="0.5" />
              <circle cx="8" cy="10" r="4.5" fill="currentColor" />
              <circle cx="24" cy="22" r="4.5" fill="currentColor" />
            </svg>
            <span className="hidden lg:inline">Netting</span>
            <span className="sr-only lg:hidden">Netting</span>
          </Link>
          <Suspense>
            <Ribbon />
          </Suspense>
          <Launcher />
          <You name={who.actor.name} />
        </header>
        <main id="main" className="pb-8">
          <Suspense>{children}</Suspense>
        </main>
        <Dock />
      </FirstData>
    </Providers>
  );
}
