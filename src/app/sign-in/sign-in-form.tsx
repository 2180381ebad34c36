'use client';

import { useState } from 'react';
import { Field } from '@/ui/controls/field';

type Told = { message?: string; code?: string; twoFactorRedirect?: boolean };

const post = (place: string, body: unknown) =>
  fetch(`/api/auth/${place}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });

function problemOf(status: number, { code, message }: Told, asksCode: boolean): string {
  if (code === 'INVALID_TWO_FACTOR_COOKIE' || code === 'TOO_MANY_ATTEMPTS_REQUEST_NEW_CODE')
    return 'That took too long, or too many tries: begin with your password again';
  if (code === 'ACCOUNT_TEMPORARILY_LOCKED') return 'Too many wrong codes. Wait a quarter of an hour';
  if (status === 401)
    return asksCode ? 'The code is wrong, or its half minute is over' : 'E-mail address or password is wrong';
  return message ?? 'Signing in did not work';
}

export function SignInForm({ next }: { next: string }) {
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  /** The password was right, and a second step is asked for. */
  const [asksCode, setAsksCode] = useState(false);
  const submit = async (event: React.FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    setBusy(true);
    setProblem('');
    try {
      const code = String(form.get('code') ?? '').replace(/\s/g, '');
      const answer = asksCode
        ? await post(/^\d{6}$/.test(code) ? 'two-factor/verify-totp' : 'two-factor/verify-backup-code', { code })
        : await post('sign-in/email', { email: form.get('email'), password: form.get('password') });
      const body = (await answer.json().catch(() => ({}))) as Told;
      if (answer.ok && !body.twoFactorRedirect) {
        window.location.href = next;
        return;
      }
      if (answer.ok) setAsksCode(true);
      else {
        setProblem(problemOf(answer.status, body, asksCode));
        // That step is over: it begins with the password again.
        if (body.code === 'INVALID_TWO_FACTOR_COOKIE' || body.code === 'TOO_MANY_ATTEMPTS_REQUEST_NEW_CODE')
          setAsksCode(false);
      }
    } catch {
      setProblem('Netting cannot be reached. Check that it is running');
    }
    setBusy(false);
  };
  return (
    <form onSubmit={(event) => void submit(event)} className="w-80 space-y-4">
      <h1 className="text-xl font-semibold">Sign in to Netting</h1>
      {asksCode ? (
        <>
          <p className="quiet">Your phone shows a code for it. One of the codes you kept does as well.</p>
          <Field label="Code" name="code" autoComplete="one-time-code" required autoFocus />
        </>
      ) : (
        <>
          <Field label="E-mail address" name="email" type="email" autoComplete="username" required />
          <Field label="Password" name="password" type="password" autoComplete="current-password" required />
        </>
      )}
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
