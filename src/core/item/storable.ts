/**
 * Control characters but line breaks and tabs, marks that turn the direction of what follows without an end of their own,
 * halves of characters, and what Unicode keeps free of characters (chapter 23): nothing shows them, XML cannot hold them,
 * and they make a word look like another.
 */
const unseen =
  /[\u0000-\u0008\u000B\u000C\u000E-\u001F\u007F-\u009F\u202A-\u202E\uFFFE\uFFFF]|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g;

/** A JSON value as it is stored: its texts, however deep, without characters that nobody can see. */
export function storable<Value>(value: Value): Value {
  if (typeof value === 'string') return value.replace(unseen, '') as Value; // a text again
  if (Array.isArray(value)) {
    const made = value.map(storable);
    return (made.some((one, at) => one !== value[at]) ? made : value) as Value; // the same list, entry by entry
  }
  if (value === null || typeof value !== 'object') return value;
  const entries = Object.entries(value);
  const made = entries.map(([key, one]) => [storable(key), storable(one)] as const);
  return (
    made.some(([key, one], at) => key !== entries[at]?.[0] || one !== entries[at]?.[1])
      ? Object.fromEntries(made)
      : value
  ) as Value; // the same record, entry by entry
}
