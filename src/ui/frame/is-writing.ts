/** Whether keys belong to what has the focus: a field, or the open list of its choices, which has the focus itself. */
export const isWriting = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT|OPTION)$/.test(target.tagName));
