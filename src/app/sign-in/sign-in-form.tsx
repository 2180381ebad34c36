'use client';

import { useState } from 'react';
import { Field } from '@/ui/controls/field';

export function SignInForm({ next }: { next: string }) {
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const submit = async (event: React.FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    setBusy(true);
    setProblem('');
    try {
      const answer = await fetch('/api/auth/sign-in/email', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ email: form.get('email'), password: form.get('password') }),
      });
      if (answer.ok) {
        window.location.href = next;
        return;
      }
      const body = (await answer.json().catch(() => ({}))) as { message?: string };
      setProblem(
        answer.status === 401 ? 'E-mail address or password is wrong' : (body.message ?? 'Signing in did not work'),
      );
    } catch {
      setProblem('Netting cannot be reached. Check that it is running');
    }
    setBusy(false);
  };
  return (
    <form onSubmit={(event) => void submit(event)} className="w-80 space-y-4">
      <h1 className="text-xl font-semibold">Sign in to Netting</h1>
      <Field label="E-mail address" name="email" type="email" autoComplete="username" required />
      <Field label="Password" name="password" type="password" autoComplete="current-password" required />
      {problem ? (
        <p role="alert" className="text-error">
          {problem}
        </p>
      ) : null}
      <button type="submit" className="btn btn-primary w-full" disabled={busy}>
        {busy ? 'Signing in …' : 'Sign in'}
      </button>
    </form>
  );
}
