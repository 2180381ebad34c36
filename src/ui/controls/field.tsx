import type { InputHTMLAttributes } from 'react';

type Props = InputHTMLAttributes<HTMLInputElement> & { label: string; name: string; problem?: string };

/** A labelled input whose problem stands at its place. */
export function Field({ label, problem, ...input }: Props) {
  const id = `field-${input.name}`;
  return (
    <div>
      <label htmlFor={id} className="mb-1 block font-medium">
        {label}
      </label>
      <input
        id={id}
        className="input input-sm w-full"
        aria-invalid={problem ? true : undefined}
        aria-describedby={problem ? `${id}-problem` : undefined}
        {...input}
      />
      {problem ? (
        <p id={`${id}-problem`} className="mt-1 text-error">
          {problem}
        </p>
      ) : null}
    </div>
  );
}
