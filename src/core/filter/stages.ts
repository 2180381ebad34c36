/** The stages of the ribbon, in the order of the work; an item may stand at several. */
export const stages = ['intake', 'drafts', 'ready', 'live', 'changed', 'drift', 'attention', 'sold'] as const;
export type Stage = (typeof stages)[number];

export const stageLabels: Record<Stage, string> = {
  intake: 'Intake',
  drafts: 'Drafts',
  ready: 'Ready',
  live: 'Live',
  changed: 'Changed',
  drift: 'Changed there',
  attention: 'Attention',
  sold: 'Sold',
};
