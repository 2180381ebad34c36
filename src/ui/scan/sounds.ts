/** What a piece sounds like, so that nobody has to look up: tones in hertz, one after the other. */
const tones = {
  /** It is in stock already. */
  known: [660, 660],
  /** It is recorded. */
  taken: [880],
  /** Its details have come. */
  found: [880, 1_170],
  /** No catalogue knows it. */
  unknown: [520, 390],
  /** Something has to be said of it. */
  needs: [990, 990, 990],
  /** It is better left lying. */
  leave: [300, 240],
  /** It is no code. */
  broken: [180, 180],
  /** It goes into another box than the one before. */
  turn: [660, 880, 1_170],
  /** It is the wrong box. */
  wrong: [240, 180, 240],
  /** A command was understood. */
  command: [1_320],
} satisfies Record<string, number[]>;
export type Sound = keyof typeof tones;

const key = 'netting.intake-silent';
export const isSilent = (): boolean => localStorage.getItem(key) !== null;
export const setSilent = (silent: boolean): void =>
  silent ? localStorage.setItem(key, '1') : localStorage.removeItem(key);

let context: AudioContext | null = null;
const toneSeconds = 0.09;

/** Plays it, where the browser lets a page be heard. */
export function play(sound: Sound): void {
  if (isSilent() || typeof AudioContext === 'undefined') return;
  context ??= new AudioContext();
  // Before the first key or click nothing may be heard; what was to be played then is not played later.
  if (context.state !== 'running') {
    void context.resume().catch(() => undefined);
    return;
  }
  for (const [index, hertz] of tones[sound].entries()) {
    const oscillator = context.createOscillator();
    const volume = context.createGain();
    const from = context.currentTime + index * (toneSeconds + 0.03);
    oscillator.frequency.value = hertz;
    oscillator.type = sound === 'broken' ? 'square' : 'sine';
    volume.gain.setValueAtTime(0.12, from);
    volume.gain.exponentialRampToValueAtTime(0.001, from + toneSeconds);
    oscillator.connect(volume).connect(context.destination);
    oscillator.start(from);
    oscillator.stop(from + toneSeconds);
  }
}

/** Says it aloud, where the browser can: the newest word alone, what was still being said is left. */
export function speak(words: string): void {
  if (isSilent() || typeof speechSynthesis === 'undefined') return;
  speechSynthesis.cancel();
  const said = new SpeechSynthesisUtterance(words);
  said.lang = 'en';
  speechSynthesis.speak(said);
}
