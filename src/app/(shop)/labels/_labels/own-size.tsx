'use client';

import { labelSizeSchema } from '@/core/label/size';
import { Dialog } from '@/ui/controls/dialog';
import { Field } from '@/ui/controls/field';
import { api } from '@/ui/data/api';
import { submitted, useCommand } from '@/ui/data/use-command';

/** A size of label of one's own, on a roll or a sheet. */
export function OwnSize({ close, made }: { close: () => void; made: (id: string) => void }) {
  const save = useCommand(
    async (form: FormData) => {
      const number = (name: string) => Number(String(form.get(name) ?? '').replace(',', '.'));
      const isSheet = form.get('sheet') === 'on';
      const size = labelSizeSchema.safeParse({
        name: String(form.get('name') ?? ''),
        widthMm: number('widthMm'),
        heightMm: number('heightMm'),
        sheet: isSheet
          ? {
              pageWidthMm: number('pageWidthMm'),
              pageHeightMm: number('pageHeightMm'),
              columns: number('columns'),
              rows: number('rows'),
              leftMm: number('leftMm'),
              topMm: number('topMm'),
              gapXMm: number('gapXMm'),
              gapYMm: number('gapYMm'),
            }
          : null,
      });
      if (!size.success) throw new Error(size.error.issues[0]?.message ?? 'This is no size');
      const id = `own-${Date.now().toString(36)}`;
      // What others have added meanwhile stays.
      const { labelSizes } = await api('GET /settings');
      await api('PUT /settings', { body: { labelSizes: { ...labelSizes, [id]: size.data } } });
      made(id);
      return undefined;
    },
    { touches: [['settings']] },
  );
  const field = (name: string, label: string, value: string) => (
    <Field key={name} name={name} label={label} inputMode="decimal" required defaultValue={value} />
  );
  return (
    <Dialog title="A size of your own" close={close}>
      <form className="space-y-3" onSubmit={submitted((form) => void save.run(form))}>
        <Field name="name" label="Name" required maxLength={60} data-first />
        <div className="grid grid-cols-2 gap-3">
          {field('widthMm', 'Width, mm', '60')}
          {field('heightMm', 'Height, mm', '30')}
        </div>
        <label className="flex items-center gap-2">
          <input type="checkbox" name="sheet" className="checkbox checkbox-sm" />
          Several on a sheet
        </label>
        <fieldset className="grid grid-cols-4 gap-3 max-md:grid-cols-2">
          <legend className="mb-1">Of a sheet</legend>
          {field('pageWidthMm', 'Page width', '210')}
          {field('pageHeightMm', 'Page height', '297')}
          {field('columns', 'Columns', '3')}
          {field('rows', 'Rows', '8')}
          {field('leftMm', 'Left edge', '0')}
          {field('topMm', 'Upper edge', '0')}
          {field('gapXMm', 'Gap beside', '0')}
          {field('gapYMm', 'Gap below', '0')}
        </fieldset>
        {save.problem ? (
          <p role="alert" className="text-error">
            {save.problem}
          </p>
        ) : null}
        <button type="submit" className="btn btn-primary btn-sm" disabled={save.busy}>
          Keep this size
        </button>
      </form>
    </Dialog>
  );
}
