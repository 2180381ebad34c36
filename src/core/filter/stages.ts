/** The stages of the ribbon, in the order of the work; an item may stand at several. */
export const stages = ['intake', 'drafts', 'ready', 'live', 'changed', 'drift', 'attention', 'sold'] as const;
export type Stage = (typeof stages)[number];
