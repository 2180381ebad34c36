export const say = (text) => console.log(text);

/** Ends with a sentence that says what is wrong and what to do. */
export function fail(sentence) {
  console.error(`\n${sentence}`);
  process.exit(1);
}
