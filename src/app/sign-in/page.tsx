import { redirect } from 'next/navigation';
import { hasOwner } from '@/services/access/set-up-owner';
import { SignInForm } from './sign-in-form';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Sign in' };

export default async function SignInPage({ searchParams }: { searchParams: Promise<{ next?: string }> }) {
  if (!(await hasOwner())) redirect('/setup');
  const { next } = await searchParams;
  // Only a path of our own: a link must not lead elsewhere after the sign-in.
  const target = next && /^\/(?![/\\])/.test(next) ? next : '/';
  return (
    <main className="grid min-h-screen place-items-center p-4">
      <SignInForm next={target} />
    </main>
  );
}
