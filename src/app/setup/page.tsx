import { redirect } from 'next/navigation';
import { hasOwner } from '@/services/access/set-up-owner';
import { SetupForm } from './setup-form';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Begin' };

export default async function SetupPage() {
  if (await hasOwner()) redirect('/sign-in');
  return (
    <main className="grid min-h-screen place-items-center p-4">
      <SetupForm />
    </main>
  );
}
