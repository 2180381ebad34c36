/** Whether a record is worked with, put away, or thrown away; what is not worked with is offered nowhere. */
export const standings = ['active', 'archived', 'deleted'] as const;
export type Standing = (typeof standings)[number];

export const standingLabels: Record<Standing, string> = {
  active: 'In the inventory',
  archived: 'Archived',
  deleted: 'Deleted',
};
