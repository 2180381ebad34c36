export const jobStates = ['waiting', 'held', 'running', 'done', 'failed', 'skipped'] as const;
export type JobState = (typeof jobStates)[number];

export const stateWords: Record<JobState, string> = {
  waiting: 'Waiting',
  held: 'Stopped',
  running: 'Under way',
  done: 'Done',
  failed: 'Failed',
  skipped: 'Taken out',
};
export const outcomeWords: Record<string, string> = {
  created: 'Listed',
  changed: 'Changed',
  ended: 'Ended',
  renewed: 'Renewed',
  nothing: 'Nothing to do',
};
/** What stands before the title of a run; what was taken back says so itself. */
export const kindWords: Record<string, string> = {
  edit: 'Change',
  publish: 'Publish',
  end: 'End',
  renew: 'Renew',
  settle: 'Settle',
  intake: 'Intake',
};
