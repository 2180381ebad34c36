import dynamic from 'next/dynamic';
import { useId } from 'react';
import { choicesOf, type Field } from '@/core/field';
import { isPhotoInput, type VerbInput } from './verb-inputs';

type Props = {
  input: VerbInput;
  field: Field;
  /** Fields that something may be taken from. */
  fields: readonly Field[];
  value: string;
  isWrong: boolean;
  /** Its label stands elsewhere, and is only read out. */
  isBare?: boolean;
  change: (text: string) => void;
};

const units: Partial<Record<VerbInput['as'], string>> = { money: 'EUR', 'signed money': 'EUR', percent: '%' };
const isWide = ({ as, name }: VerbInput, field: Field) =>
  as === 'text' ||
  as === 'entries' ||
  name === 'formula' ||
  (as === 'value' && ['text', 'rich', 'list', 'map'].includes(field.kind.is));

// Nobody needs it before a step is about photos.
const PhotoInput = dynamic(() => import('./photos/photo-input').then((module) => module.PhotoInput), {
  // With something to stand there meanwhile the rest of the page keeps the focus.
  loading: () => <span className="quiet col-span-2 text-[12px]">Being fetched …</span>,
});

/** A box for one argument of a step. */
export function StepInput({ input, field, fields, value, isWrong, isBare, change }: Props) {
  const choices =
    input.as === 'choice'
      ? input.choices
      : input.as === 'field'
        ? [
            ['', 'Choose'] as const,
            ...fields.filter((one) => one.id !== field.id).map((one) => [one.id, one.label] as const),
          ]
        : input.as === 'value' && field.kind.is === 'choice'
          ? [['', 'Choose'] as const, ...choicesOf(field.kind).map((one) => [one.id, one.label] as const)]
          : input.as === 'value' && field.kind.is === 'boolean'
            ? [['', 'Choose'] as const, ...(field.kind.words ?? ['Yes', 'No']).map((word) => [word, word] as const)]
            : null;
  const id = useId();
  const shared = {
    id,
    'data-step-input': isBare ? undefined : true,
    'aria-invalid': isWrong ? true : undefined,
    value,
    placeholder: input.placeholder ?? (input.as === 'value' && field.kind.is === 'map' ? 'Colour: black' : ''),
  };
  if (isPhotoInput(input.as)) return <PhotoInput as={input.as} label={input.label} value={value} change={change} />;
  if (input.as === 'check')
    return (
      <label className="col-span-2 flex items-center gap-1.5">
        <input
          type="checkbox"
          className="checkbox checkbox-xs"
          checked={value === 'yes'}
          onChange={(event) => change(event.target.checked ? 'yes' : '')}
        />
        {input.label}
      </label>
    );
  const many =
    isWide(input, field) &&
    (field.kind.is === 'rich' || field.kind.is === 'map' || (field.kind.is === 'text' && field.kind.lines));
  return (
    <div className={`flex flex-col gap-0.5 ${isWide(input, field) ? 'col-span-2' : ''}`}>
      <label htmlFor={id} className={isBare ? 'sr-only' : 'quiet text-[12px]'}>
        {input.label}
        {units[input.as] ? `, ${units[input.as]}` : ''}
      </label>
      {choices ? (
        <select
          {...shared}
          value={value || (choices[0]?.[0] ?? '')}
          className="select select-sm w-full"
          onChange={(event) => change(event.target.value)}
        >
          {choices.map(([choice, label]) => (
            <option key={choice} value={choice}>
              {label}
            </option>
          ))}
        </select>
      ) : many ? (
        <textarea
          {...shared}
          rows={isBare ? 1 : 3}
          className={`textarea textarea-sm w-full ${isBare ? 'h-8 min-h-8' : ''}`}
          onChange={(event) => change(event.target.value)}
        />
      ) : (
        <input
          {...shared}
          className={`input input-sm w-full ${isWide(input, field) ? '' : 'figures'}`}
          onChange={(event) => change(event.target.value)}
        />
      )}
    </div>
  );
}
