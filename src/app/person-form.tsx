'use client';

import { useState } from 'react';
import { Field } from '@/ui/controls/field';

type Problem = { title?: string; errors?: { field: string; message: string }[] };

type Props = {
  title: string;
  words: string;
  /** Where it is sent, and what goes along. */
  to: string;
  also?: Record<string, string>;
  /** Where one is then. */
  next: string;
  button: string;
};

/** Somebody says who he is and how he will sign in, and is signed in with it. */
export function PersonForm({ title, words, to, also, next, button }: Props) {
  const [problem, setProblem] = useState<Problem | null>(null);
  const at = (field: string) => problem?.errors?.find((one) => one.field === field)?.message;
  const submit = async (event: React.FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = Object.fromEntries(new FormData(event.currentTarget));
    const post = (path: string, body: unknown) =>
      fetch(path, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });
    try {
      const made = await post(to, { ...form, ...also });
      if (!made.ok) {
        setProblem((await made.json()) as Problem);
        return;
      }
      await post('/api/auth/sign-in/email', { email: form.email, password: form.password });
      window.location.href = next;
    } catch {
      setProblem({ title: 'Netting cannot be reached. What you typed is still here: try again' });
    }
  };
  return (
    <form onSubmit={(event) => void submit(event)} className="w-96 space-y-4" noValidate>
      <h1 className="text-xl font-semibold">{title}</h1>
      <p className="quiet">{words}</p>
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
        {button}
      </button>
    </form>
  );
}
