import { ApiProblem } from './api';

/** What was wrong, and what mends it, where that is known. */
export const sentenceWithFix = (error: unknown): string =>
  error instanceof ApiProblem && error.fix ? `${sentenceOf(error)}. ${error.fix}` : sentenceOf(error);

/** What was wrong, in a sentence, at the first field that it is about. */
export const sentenceOf = (error: unknown, fallback = 'That did not work'): string => {
  if (error instanceof ApiProblem) return error.errors[0]?.message ?? error.message;
  return error instanceof Error && error.message ? error.message : fallback;
};
