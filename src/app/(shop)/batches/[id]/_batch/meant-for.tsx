import { useAccounts } from '@/ui/data/accounts';

/** For which accounts the pieces are meant: those that want every new item, or the ones that are named. */
export function MeantFor({
  accounts: meant,
  set,
}: {
  accounts: number[] | null;
  set: (accounts: number[] | null) => void;
}) {
  const { accounts } = useAccounts();
  return (
    <fieldset>
      <legend>Meant for</legend>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="checkbox checkbox-sm"
          checked={meant === null}
          onChange={(event) => set(event.target.checked ? null : accounts.map((one) => one.id))}
        />
        the accounts that want every new item
      </label>
      {meant === null ? null : (
        <ul className="mt-1 grid grid-cols-2 gap-x-2">
          {accounts.map((one) => (
            <li key={one.id}>
              <label className="flex items-center gap-2 truncate">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={meant.includes(one.id)}
                  onChange={(event) =>
                    set(event.target.checked ? [...meant, one.id] : meant.filter((other) => other !== one.id))
                  }
                />
                {one.name}
              </label>
            </li>
          ))}
        </ul>
      )}
    </fieldset>
  );
}
