/** Texts that do harm where somebody hands them on unlooked at. What would tell that they did is looked for in answers. */
export const hostileTexts = [
  "' or '1'='1",
  "'; select sleep(6); -- ",
  '1) union select password, 2 from auth_credential -- ',
  '`; drop table item; --',
  '<script>fetch("/api/v1/people")</script>',
  '"><img src=x onerror=alert(1)>',
  'javascript:alert(1)',
  '{{ 7919 | times: 6007 }}',
  '{% for a in (1..100000000) %}x{% endfor %}',
  '$' + '{7919*6007}',
  'a\r\nx-injected: yes',
  '../../../../etc/passwd',
  '..\\..\\secrets.json',
  'file:///etc/passwd',
  '=HYPERLINK("http://127.0.0.1/","x")',
  "@SUM(1+1)*cmd|' /C calc'!A0",
  '(a+)+$',
  '(?<!x){0,99999}'.repeat(20),
  '%00',
  'a\u0000b',
  '\ud800',
  '𝕏'.repeat(2_000),
  '‮gnp.exe',
  '__proto__',
  'constructor.prototype.isAdmin',
];

/** Values of another kind, and at the ends of what can be said. */
export const oddValues = [
  null,
  true,
  [],
  {},
  [[[[[[]]]]]],
  { $gt: '' },
  { __proto: { isAdmin: true } },
  '',
  ' ',
  0,
  -1,
  0.5,
  -0,
  2 ** 31,
  2 ** 53,
  1e308,
  -1e308,
  'x'.repeat(200_000),
  Array.from({ length: 5_000 }, (_, at) => at),
];

export const hostileIds = [
  '0',
  '-1',
  '1e9',
  '0x10',
  '1%20or%201=1',
  '..%2f..%2fsecrets',
  '%00',
  'NaN',
  '9'.repeat(300),
  '999999999',
];

/** What an answer shows that says more than it should. */
const tells = [
  [/\bER_[A-Z_]+|SQLSTATE|You have an error in your SQL|drizzle|mysql2|mariadb/i, 'tells of the database'],
  [/\n\s+at .+:\d+:\d+|node_modules|\/src\/[a-z]+\//, 'tells of the code'],
  [/root:x:0:0|databasePassword|appSecret/, 'tells of a file of the machine'],
  [/47569433/, 'carried a template out'],
];
export const whatItTells = (text) => tells.filter(([pattern]) => pattern.test(text)).map(([, what]) => what);

/**
 * A value as a JSON Schema asks for it.
 * @param known numbers of what is there, so that what is asked for goes as deep as it can
 */
export function exampleOf(schema, known = {}, depth = 0, name = '') {
  if (!schema || typeof schema !== 'object' || depth > 8) return 'x';
  if ('const' in schema) return schema.const;
  if (schema.enum) return schema.enum[0];
  if ('default' in schema) return schema.default;
  const choice = schema.anyOf ?? schema.oneOf;
  if (choice) return exampleOf(choice[0], known, depth + 1, name);
  if (schema.allOf) return Object.assign({}, ...schema.allOf.map((one) => exampleOf(one, known, depth + 1, name)));
  const type = Array.isArray(schema.type) ? schema.type[0] : schema.type;
  if (type === 'object') {
    const wanted = Object.entries(schema.properties ?? {});
    return Object.fromEntries(wanted.map(([key, one]) => [key, exampleOf(one, known, depth + 1, key)]));
  }
  if (type === 'array')
    return [
      exampleOf(Array.isArray(schema.prefixItems) ? schema.prefixItems[0] : schema.items, known, depth + 1, name),
    ];
  const kind = Object.keys(known).find((one) => name.toLowerCase().includes(one));
  if (type === 'integer' && kind) return known[kind];
  if (type === 'integer' || type === 'number') return Math.max(schema.minimum ?? 1, schema.exclusiveMinimum ?? 0) || 1;
  if (type === 'boolean') return true;
  if (type === 'null') return null;
  if (schema.format === 'date-time') return '2026-01-01T00:00:00.000Z';
  if (schema.format === 'date') return '2026-01-01';
  if (schema.format === 'uri') return 'http://shop.example/';
  return 'x'.repeat(Math.max(1, schema.minLength ?? 1));
}

/** The places inside a value where another one can stand. */
export function placesIn(value, path = []) {
  if (value === null || typeof value !== 'object') return [path];
  const inner = Object.entries(value).flatMap(([key, one]) => placesIn(one, [...path, key]));
  return [path, ...inner];
}

/** The same with another value at a place. */
export function withAt(value, [key, ...rest], other) {
  if (key === undefined) return other;
  const copy = Array.isArray(value) ? [...value] : { ...value };
  copy[key] = withAt(copy[key], rest, other);
  return copy;
}
