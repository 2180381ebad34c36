/** What stands behind a program's name: switches, and what follows an option. */
export function optionsOf(args) {
  const has = (name) => args.includes(name);
  const word = (name) => (has(name) ? (args[args.indexOf(name) + 1] ?? null) : null);
  return {
    has,
    word,
    number: (name, fallback) => (has(name) ? Number(word(name)) : fallback),
    /** What is drawn by chance is drawn by this: the same seed makes the same choices. */
    seed: has('--seed') ? Number(word('--seed')) : Date.now() % 1_000_000,
  };
}
