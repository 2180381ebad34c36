import { roleNames } from '@/core/access';
import { findInvitation } from '@/services/access/join';
import { PersonForm } from '../../person-form';

export const dynamic = 'force-dynamic';
// The address is the key: no page that is gone to from here is told it.
export const metadata = { title: 'Join', referrer: 'no-referrer' as const };

export default async function InvitedPage({ params }: { params: Promise<{ code: string }> }) {
  const { code } = await params;
  const open = await findInvitation(code);
  return (
    <main className="grid min-h-screen place-items-center p-4">
      {open ? (
        <PersonForm
          title={`Join the shop, ${open.forWhom}`}
          words={`You are invited as ${roleNames[open.role].toLowerCase()}. Say how you will sign in.`}
          to="/api/invited"
          also={{ code }}
          next="/"
          button="Join"
        />
      ) : (
        <div className="max-w-md">
          <h1 className="mb-2 text-xl font-semibold">This link opens nothing</h1>
          <p className="quiet">
            It was used already, was withdrawn, or is older than a day. Ask an owner of the shop for another.
          </p>
        </div>
      )}
    </main>
  );
}
