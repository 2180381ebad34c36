'use client';

import { LogOut } from 'lucide-react';

export function SignOut({ name }: { name: string }) {
  const leave = async () => {
    await fetch('/api/auth/sign-out', { method: 'POST', headers: { 'content-type': 'application/json' }, body: '{}' });
    window.location.href = '/sign-in';
  };
  return (
    <button
      type="button"
      className="btn btn-ghost btn-sm btn-square"
      aria-label={`Sign out ${name}`}
      title={`Sign out ${name}`}
      onClick={() => void leave()}
    >
      <LogOut size={15} aria-hidden="true" />
    </button>
  );
}
