import { ApiProblem } from './api';

/** What was wrong, in a sentence, at the first field that it is about. */
export const sentenceOf = (error: unknown, fallback = 'That did not work'): string => {
  if (error instanceof ApiProblem) return error.errors[0]?.message ?? error.message;
  return error instanceof Error && error.message ? error.message : fallback;
};
