'use client';

import { type QueryKey, useMutation, useQueryClient } from '@tanstack/react-query';
import type { FormEvent } from 'react';
import { useNotice } from '../frame/providers';
import { sentenceOf } from './sentence';

type Options = {
  /** Which lists are read again afterwards, also when it failed; all of them when left out. */
  touches?: QueryKey[];
  /** Says a problem at the foot of the page, where there is no better place for it. */
  tells?: boolean;
};

export type Command<Given extends unknown[]> = {
  /** Does it; true when it went well. */
  run(...given: Given): Promise<boolean>;
  busy: boolean;
  /** What was wrong the last time; empty when nothing was. */
  problem: string;
  error: unknown;
  clear(): void;
};

/**
 * One thing that a person does on a page: busy while it runs, its problem when it failed, and what hangs on it read
 * again. What `work` returns is said as a notice.
 */
export function useCommand<Given extends unknown[]>(
  work: (...given: Given) => Promise<string | undefined>,
  { touches, tells = false }: Options = {},
): Command<Given> {
  const client = useQueryClient();
  const notice = useNotice();
  const { mutateAsync, isPending, error, reset } = useMutation({
    mutationFn: (given: Given) => work(...given),
    onSuccess: (said) => {
      if (said) notice(said);
    },
    onError: (failure) => {
      if (tells) notice(sentenceOf(failure));
    },
    onSettled: () =>
      touches
        ? Promise.all(touches.map((queryKey) => client.invalidateQueries({ queryKey })))
        : client.invalidateQueries(),
  });
  return {
    run: (...given) =>
      mutateAsync(given).then(
        () => true,
        () => false,
      ),
    busy: isPending,
    problem: error ? sentenceOf(error) : '',
    error,
    clear: reset,
  };
}

/** For `onSubmit`: what the form holds at that moment, and the page stays. */
export const submitted = (run: (form: FormData) => unknown) => (event: FormEvent<HTMLFormElement>) => {
  event.preventDefault();
  run(new FormData(event.currentTarget));
};
