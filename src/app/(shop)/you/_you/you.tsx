'use client';

import { useQuery } from '@tanstack/react-query';
import { roleNames } from '@/core/access';
import { Failed, Loading, PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { useRole } from '@/ui/data/me';
import { useCommand } from '@/ui/data/use-command';
import { Password } from './password';
import { Sessions } from './sessions';
import { Tokens } from './tokens';
import { TwoStep } from './two-step';

/** One's own things: password, second step, where one is signed in, the programs that act in one's name. */
export function You() {
  const role = useRole();
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['access'],
    queryFn: () => api('GET /access'),
  });
  const leave = useCommand(
    async () => {
      await api('POST /me/leave', { body: {} });
      window.location.href = '/sign-in';
      return undefined;
    },
    { touches: [], tells: true },
  );
  return (
    <>
      <PageHead title="You">
        <span className="quiet">
          {data?.email}, {roleNames[role].toLowerCase()}
        </span>
      </PageHead>
      {isPending ? <Loading what="your things" /> : null}
      {isLoadingError ? <Failed error={error} retry={() => void refetch()} /> : null}
      {data ? (
        <div className="grid max-w-5xl grid-cols-[minmax(0,1fr)] gap-8 p-4">
          <Password email={data.email} />
          <TwoStep isOn={data.twoStep} />
          <Sessions sessions={data.sessions} />
          <Tokens tokens={data.tokens} />
          <section aria-labelledby="leave">
            <h2 id="leave" className="mb-2 font-semibold">
              Leave the shop
            </h2>
            <p className="quiet mb-2 text-[12px]">
              You cannot sign in any more, and your programs’ tokens end. What you did stays in the history under your
              name.
            </p>
            <button
              type="button"
              className="btn btn-sm"
              disabled={leave.busy}
              onClick={() => {
                if (window.confirm('Leave the shop? Only an owner can invite you again.')) void leave.run();
              }}
            >
              Leave
            </button>
          </section>
        </div>
      ) : null}
    </>
  );
}
