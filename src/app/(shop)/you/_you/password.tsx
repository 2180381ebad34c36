'use client';

import { useRef } from 'react';
import { Field } from '@/ui/controls/field';
import { submitted, useCommand } from '@/ui/data/use-command';
import { ask } from './ask';

/** Another password; whoever is signed in elsewhere has to sign in again. */
export function Password({ email }: { email: string }) {
  const form = useRef<HTMLFormElement>(null);
  const change = useCommand(
    async (given: FormData) => {
      await ask('change-password', {
        currentPassword: given.get('currentPassword'),
        newPassword: given.get('newPassword'),
        revokeOtherSessions: true,
      });
      form.current?.reset();
      return 'Your password is changed; you are signed out everywhere else';
    },
    { touches: [['access']] },
  );
  return (
    <section aria-labelledby="password">
      <h2 id="password" className="mb-2 font-semibold">
        Password
      </h2>
      <form
        ref={form}
        className="flex flex-wrap items-end gap-3"
        onSubmit={submitted((given) => void change.run(given))}
      >
        <input type="hidden" name="username" autoComplete="username" value={email} readOnly />
        <Field
          label="Now"
          name="currentPassword"
          type="password"
          autoComplete="current-password"
          required
          problem={change.problem || undefined}
        />
        <Field
          label="New, at least 10 characters"
          name="newPassword"
          type="password"
          autoComplete="new-password"
          minLength={10}
          maxLength={128}
          required
        />
        <button type="submit" className="btn btn-sm" disabled={change.busy}>
          Change the password
        </button>
      </form>
    </section>
  );
}
