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

/** What was done, in words, with what takes it back where there is no other way to that. */
export type Said = { text: string; back: () => Promise<unknown> };

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
 * again. What `work` returns is said as a notice, for a while with the way back.
 */
export function useCommand<Given extends unknown[]>(
  work: (...given: Given) => Promise<string | Said | undefined>,
  { touches, tells = false }: Options = {},
): Command<Given> {
  const client = useQueryClient();
  const notice = useNotice();
  const readAgain = (): Promise<unknown> =>
    touches
      ? Promise.all(touches.map((queryKey) => client.invalidateQueries({ queryKey })))
      : client.invalidateQueries();
  const takeBack = async (back: Said['back']) => {
    try {
      await back();
    } catch (failure) {
      notice(sentenceOf(failure));
    }
    await readAgain();
  };
  const { mutateAsync, isPending, error, reset } = useMutation({
    mutationFn: (given: Given) => work(...given),
    onSuccess: (said) => {
      if (typeof said === 'string') notice(said);
      else if (said) notice(said.text, { label: 'Take it back', run: () => void takeBack(said.back) });
    },
    onError: (failure) => {
      if (tells) notice(sentenceOf(failure));
    },
    onSettled: readAgain,
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
