import type { PublishPlan } from '@/services/listings/publish/plan-publish';
import { fieldName } from '@/ui/controls/shown-value';

type Props = {
  plan: PublishPlan;
  left: Record<number, string[]>;
  leave: (left: Record<number, string[]>) => void;
};

/** Of listings that are there already what goes, field by field and account by account; what is not ticked stays changed. */
export function LeftOut({ plan, left, leave }: Props) {
  const lines = plan.accounts.filter((account) => account.fields.length > 0);
  if (lines.length === 0) return null;
  return (
    <details
      className="border-b border-base-300 px-4 py-1"
      open={Object.values(left).some((fields) => fields.length > 0)}
    >
      <summary className="cursor-pointer">What goes of listings that are there already</summary>
      <ul className="py-1">
        {lines.map(({ accountId, name, fields }) => {
          const own = left[accountId] ?? [];
          return (
            <li key={accountId} className="flex flex-wrap items-center gap-x-4 gap-y-0.5">
              <span className="w-28 shrink-0 truncate font-medium">{name}</span>
              {fields.map(({ field, listings }) => (
                <label key={field} className="flex items-center gap-1.5">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-xs"
                    aria-label={`Send ${fieldName(field).toLowerCase()} to ${name}`}
                    checked={!own.includes(field)}
                    onChange={(event) =>
                      leave({
                        ...left,
                        [accountId]: event.target.checked ? own.filter((one) => one !== field) : [...own, field],
                      })
                    }
                  />
                  {fieldName(field)} <span className="quiet figures">{listings.toLocaleString('en')}</span>
                </label>
              ))}
            </li>
          );
        })}
      </ul>
    </details>
  );
}
