'use client';

import { useState } from 'react';
import { Field } from '@/ui/controls/field';
import { submitted, useCommand } from '@/ui/data/use-command';
import { ask } from './ask';

type Begun = { totpURI: string; code: string; backupCodes: string[] };
const touches = [['access']];
const secretOf = (uri: string): string => new URL(uri).searchParams.get('secret') ?? '';

/** A code of a phone besides the password (RFC 6238). */
export function TwoStep({ isOn }: { isOn: boolean }) {
  const [begun, setBegun] = useState<Begun | null>(null);
  const begin = useCommand(
    async (form: FormData) => {
      setBegun(await ask<Begun>('two-factor/enable', { password: form.get('password') }));
      return undefined;
    },
    { touches: [] },
  );
  const finish = useCommand(
    async (form: FormData) => {
      await ask('two-factor/verify-totp', { code: String(form.get('code')).replace(/\s/g, '') });
      setBegun(null);
      return 'From now on signing in asks for a code';
    },
    { touches },
  );
  const end = useCommand(
    async (form: FormData) => {
      await ask('two-factor/disable', { password: form.get('password') });
      return 'Signing in asks for the password alone';
    },
    { touches },
  );
  const command = isOn ? end : begin;
  return (
    <section aria-labelledby="two-step">
      <h2 id="two-step" className="mb-2 font-semibold">
        Second step
      </h2>
      <p className="quiet mb-2 text-[12px]">
        {isOn
          ? 'On: signing in asks for your password and for a code that your phone shows.'
          : 'Off. With it, signing in asks for a code that a program on your phone shows, too.'}
      </p>
      {begun ? (
        <div className="flex flex-wrap gap-6">
          <img
            className="h-44 w-44 rounded border border-base-300"
            src={`data:image/svg+xml;utf8,${encodeURIComponent(begun.code)}`}
            alt="The secret as a code to be photographed"
          />
          <div className="min-w-0 grow space-y-3">
            <p>
              Photograph it with the program on your phone, or type the secret there:{' '}
              <span className="mono break-all select-all">{secretOf(begun.totpURI)}</span>
            </p>
            <div>
              <p>If the phone is lost, each of these signs you in once. Keep them somewhere else:</p>
              <p className="mono select-all">{begun.backupCodes.join(' ')}</p>
            </div>
            <form className="flex items-end gap-3" onSubmit={submitted((form) => void finish.run(form))}>
              <Field
                label="The code that it shows now"
                name="code"
                inputMode="numeric"
                autoComplete="one-time-code"
                required
                problem={finish.problem || undefined}
              />
              <button type="submit" className="btn btn-sm" disabled={finish.busy}>
                Turn it on
              </button>
            </form>
          </div>
        </div>
      ) : (
        <form className="flex flex-wrap items-end gap-3" onSubmit={submitted((form) => void command.run(form))}>
          <Field
            label="Your password"
            name="password"
            type="password"
            autoComplete="current-password"
            required
            problem={command.problem || undefined}
          />
          <button type="submit" className="btn btn-sm" disabled={command.busy}>
            {isOn ? 'Turn it off' : 'Begin'}
          </button>
        </form>
      )}
    </section>
  );
}
