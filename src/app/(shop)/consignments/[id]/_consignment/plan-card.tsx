import { Price } from '@/ui/controls/format';
import { When } from '@/ui/controls/when';
import { type Plan, unitsText } from './view';

type Props = {
  plan: Plan;
  number: number;
  total: number;
  isCheapest: boolean;
  isTaken: boolean;
  take: (() => void) | null;
};

/** One plan: which warehouse gets how many, what that costs part by part, and what is refused. */
export function PlanCard({ plan, number, total, isCheapest, isTaken, take }: Props) {
  const { placements, refused, costs, labels, expiresAt } = plan;
  const isLapsed = new Date(expiresAt).getTime() <= Date.now();
  const lines: [string, number | null][] = [
    ['Placing', costs.placing],
    [labels === 'self' ? 'Your time for labels' : 'Labels by them', costs.labelling],
    ['Preparing', costs.prep],
    ['Postage, by weight', costs.postage],
  ];
  return (
    <article
      aria-label={`Plan ${number}`}
      className={`rounded border p-3 ${isTaken ? 'border-primary' : 'border-base-300'}`}
    >
      <header className="mb-2 flex items-baseline gap-2">
        <h3 className="font-semibold">Plan {number}</h3>
        {isCheapest ? <span className="text-success">cheapest</span> : null}
        <span className="quiet ml-auto text-[12px]">
          {isTaken ? (
            'taken'
          ) : isLapsed ? (
            'has lapsed'
          ) : (
            <>
              lapses <When at={expiresAt} />
            </>
          )}
        </span>
      </header>
      <div className="grid grid-cols-[1fr_1.15fr] gap-5">
        <table className="w-full self-start">
          <tbody>
            {placements.map((one) => (
              <tr key={one.warehouse}>
                <th scope="row" className="text-left font-medium">
                  {one.name}
                </th>
                <td className="figures text-right">
                  {unitsText(one.units.reduce((sum, its) => sum + its.quantity, 0))}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <table className="w-full self-start">
          <tbody>
            {lines.map(([label, amount]) => (
              <tr key={label}>
                <th scope="row" className="text-left font-normal">
                  {label}
                </th>
                <td className="text-right">
                  {amount === null ? <span className="quiet">not known</span> : <Price amount={amount} />}
                </td>
              </tr>
            ))}
            <tr className="border-t border-base-300 font-semibold">
              <th scope="row" className="text-left">
                In all
              </th>
              <td className="text-right">
                <Price amount={total} />
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      {refused.length ? (
        <ul className="mt-2 text-warning">
          {refused.map((one) => (
            <li key={one.sku}>
              <span className="mono">{one.sku}</span>: {one.reason}
            </li>
          ))}
        </ul>
      ) : null}
      {take && placements.length && !isLapsed ? (
        <button type="button" className="btn btn-primary btn-sm mt-2" onClick={take}>
          Take this plan
        </button>
      ) : null}
    </article>
  );
}
