import type { ShareWay } from '@/core/batch/share-cost';
import { amountToText, homeCurrency, parseAmount } from '@/core/measure/money';
import { Field } from '@/ui/controls/field';
import { useSells } from '@/ui/data/me';

export type BatchWords = {
  name: string;
  supplier: string;
  boughtOn: string | null;
  invoice: string;
  totalCost: number | null;
  shareBy: ShareWay;
  skuPattern: string;
};

const ways: Record<ShareWay, string> = {
  number: 'by number',
  weight: 'by weight',
  price: 'by price',
  hand: 'by hand, the rest by number',
};

/** What a person wrote of a batch. Throws a sentence where an amount is none. */
export function readBatch(form: FormData): BatchWords {
  const text = (name: string) => String(form.get(name) ?? '').trim();
  const cost = text('totalCost');
  const totalCost = cost === '' ? null : parseAmount(cost, homeCurrency);
  if (cost !== '' && (totalCost === null || totalCost < 0))
    throw new Error('What all of it cost is not understood; write it as in 120.00');
  return {
    name: text('name'),
    supplier: text('supplier'),
    boughtOn: text('boughtOn') || null,
    invoice: text('invoice'),
    totalCost,
    shareBy: text('shareBy') as ShareWay, // one of the options below
    skuPattern: text('skuPattern'),
  };
}

type Props = {
  batch: BatchWords;
  problem?: { field?: string; text: string };
  /** Called with the way that was chosen to share the cost. */
  shared?: (way: ShareWay) => void;
};

/** The fields of a batch, in a form. */
export function BatchFields({ batch, problem, shared }: Props) {
  const sells = useSells();
  const at = (field: string) => (problem?.field === field ? problem.text : undefined);
  return (
    <div className="grid grid-cols-2 gap-3 max-md:grid-cols-1">
      <div className="col-span-full">
        <Field
          label="Name"
          name="name"
          required
          maxLength={120}
          defaultValue={batch.name}
          problem={at('name')}
          data-first
        />
      </div>
      <Field label="Supplier" name="supplier" maxLength={120} defaultValue={batch.supplier} />
      <Field label="Invoice" name="invoice" maxLength={80} defaultValue={batch.invoice} />
      <Field label="Bought on" name="boughtOn" type="date" defaultValue={batch.boughtOn ?? ''} />
      <Field
        label="Stock numbers begin with"
        name="skuPattern"
        maxLength={74}
        placeholder="as in the settings"
        defaultValue={batch.skuPattern}
        problem={at('skuPattern')}
      />
      {sells ? (
        <>
          <Field
            label={`All of it cost, ${homeCurrency}`}
            name="totalCost"
            inputMode="decimal"
            placeholder="leave open where each has its own"
            defaultValue={batch.totalCost === null ? '' : amountToText(batch.totalCost, homeCurrency)}
            problem={at('totalCost')}
          />
          <label className="block font-medium">
            <span className="mb-1 block">Shared out over the pieces</span>
            <select
              className="select select-sm w-full"
              name="shareBy"
              defaultValue={batch.shareBy}
              onChange={(event) => shared?.(event.target.value as ShareWay)} // one of the options below
            >
              {Object.entries(ways).map(([way, words]) => (
                <option key={way} value={way}>
                  {words}
                </option>
              ))}
            </select>
          </label>
        </>
      ) : (
        <input type="hidden" name="shareBy" value={batch.shareBy} />
      )}
    </div>
  );
}
