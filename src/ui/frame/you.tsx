'use client';

import { LogOut, UserRound } from 'lucide-react';
import { Link } from '../controls/link';

/** Who is here: the way to one's own things, and out. */
export function You({ name }: { name: string }) {
  const leave = async () => {
    await fetch('/api/auth/sign-out', { method: 'POST', headers: { 'content-type': 'application/json' }, body: '{}' });
    window.location.href = '/sign-in';
  };
  return (
    <span className="flex">
      <Link
        href="/you"
        className="btn btn-ghost btn-sm btn-square max-md:hidden"
        aria-label={`${name}: password, sessions`}
        title={name}
      >
        <UserRound size={15} aria-hidden="true" />
      </Link>
      <button
        type="button"
        className="btn btn-ghost btn-sm btn-square"
        aria-label={`Sign out ${name}`}
        title={`Sign out ${name}`}
        onClick={() => void leave()}
      >
        <LogOut size={15} aria-hidden="true" />
      </button>
    </span>
  );
}
