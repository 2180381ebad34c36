import type { PriceRule } from '@/core/batch/settings';
import { AmountField } from '@/ui/controls/amount-field';

const starts: Record<PriceRule['by'], { words: string; rule: PriceRule }> = {
  none: { words: 'written later', rule: { by: 'none' } },
  fixed: { words: 'always the same', rule: { by: 'fixed', amount: 500 } },
  cost: { words: 'from its cost', rule: { by: 'cost', times: 300, plus: 0 } },
  sales: { words: 'from what such things sold for', rule: { by: 'sales', days: 180, times: 100 } },
};

/** How a piece gets its price. */
export function PriceRuleField({ rule, set }: { rule: PriceRule; set: (rule: PriceRule) => void }) {
  const times = (value: number, change: (times: number) => void, most: number, of: string) => (
    <label className="block text-[12px]">
      {of}
      <input
        className="input input-sm figures w-full"
        type="number"
        min={1}
        max={most}
        value={value}
        onChange={(event) => {
          const next = Number(event.target.value);
          if (Number.isInteger(next) && next >= 1 && next <= most) change(next);
        }}
      />
    </label>
  );
  return (
    <div className="grid grid-cols-2 gap-2">
      <label className="col-span-2 block">
        Price
        <select
          className="select select-sm w-full"
          value={rule.by}
          onChange={(event) => set(starts[event.target.value as PriceRule['by']].rule)} // one of the options below
        >
          {Object.entries(starts).map(([by, { words }]) => (
            <option key={by} value={by}>
              {words}
            </option>
          ))}
        </select>
      </label>
      {rule.by === 'fixed' ? (
        <AmountField label="Price" amount={rule.amount} set={(amount) => set({ by: 'fixed', amount: amount ?? 0 })} />
      ) : null}
      {rule.by === 'cost' ? (
        <>
          {times(rule.times, (next) => set({ ...rule, times: next }), 10_000, '% of the cost')}
          <AmountField label="and besides" amount={rule.plus} set={(plus) => set({ ...rule, plus: plus ?? 0 })} />
        </>
      ) : null}
      {rule.by === 'sales' ? (
        <>
          {times(rule.times, (next) => set({ ...rule, times: next }), 1_000, '% of the median')}
          <label className="block text-[12px]">
            Sales of, days
            <input
              className="input input-sm figures w-full"
              type="number"
              min={7}
              max={1_000}
              value={rule.days}
              onChange={(event) => {
                const days = Number(event.target.value);
                if (Number.isInteger(days) && days >= 7 && days <= 1_000) set({ ...rule, days });
              }}
            />
          </label>
        </>
      ) : null}
    </div>
  );
}
