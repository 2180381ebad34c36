import type { SaveState } from './use-autosave';

/** Whether what is on the page is on disk. */
export function SaveMark({ state }: { state: SaveState }) {
  const text = {
    saved: () => 'Saved',
    typing: () => 'Typing …',
    saving: () => 'Saving …',
    offline: () => 'Not connected. What you typed is kept in this browser and saved as soon as it can be',
    refused: () => `Not saved: ${state.kind === 'refused' ? state.message : ''}`,
  }[state.kind]();
  return (
    <span
      role="status"
      data-save={state.kind}
      className={`shrink-0 text-[13px] ${state.kind === 'refused' ? 'text-error' : state.kind === 'offline' ? 'text-warning' : 'quiet'}`}
    >
      {text}
    </span>
  );
}
