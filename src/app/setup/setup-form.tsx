'use client';

import { useState } from 'react';
import { Field } from '@/ui/controls/field';

type Problem = { title?: string; errors?: { field: string; message: string }[] };

/** The first visitor becomes the owner. */
export function SetupForm() {
  const [problem, setProblem] = useState<Problem | null>(null);
  const at = (field: string) => problem?.errors?.find((one) => one.field === field)?.message;
  const submit = async (event: React.FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = Object.fromEntries(new FormData(event.currentTarget));
    const post = (path: string, body: unknown) =>
      fetch(path, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });
    const made = await post('/api/setup', form);
    if (!made.ok) {
      setProblem((await made.json()) as Problem);
      return;
    }
    await post('/api/auth/sign-in/email', { email: form.email, password: form.password });
    window.location.href = '/marketplaces';
  };
  return (
    <form onSubmit={(event) => void submit(event)} className="w-96 space-y-4" noValidate>
      <h1 className="text-xl font-semibold">Begin with Netting</h1>
      <p className="quiet">
        You are the first here: make the owner’s account. Then connect a marketplace and record your first item.
      </p>
      <Field label="Your name" name="name" autoComplete="name" required problem={at('name')} />
      <Field label="E-mail address" name="email" type="email" autoComplete="username" required problem={at('email')} />
      <Field
        label="Password (at least 10 characters)"
        name="password"
        type="password"
        autoComplete="new-password"
        required
        problem={at('password')}
      />
      {problem && !problem.errors?.length ? (
        <p role="alert" className="text-error">
          {problem.title}
        </p>
      ) : null}
      <button type="submit" className="btn btn-primary w-full">
        Make the account
      </button>
    </form>
  );
}
