import { redirect } from 'next/navigation';
import { hasOwner } from '@/services/access/set-up-owner';
import { PersonForm } from '../person-form';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Begin' };

export default async function SetupPage() {
  if (await hasOwner()) redirect('/sign-in');
  return (
    <main className="grid min-h-screen place-items-center p-4">
      <PersonForm
        title="Begin with Netting"
        words="You are the first here: make the owner’s account. Then connect a marketplace and record your first item."
        to="/api/setup"
        next="/marketplaces"
        button="Make the account"
      />
    </main>
  );
}
