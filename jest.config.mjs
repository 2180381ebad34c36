const shared = {
  transform: {
    '^.+\\.(t|j|mj)sx?$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: true },
          target: 'es2022',
          transform: { react: { runtime: 'automatic' } },
        },
      },
    ],
  },
  // Packages that ship only ES modules are compiled like our own code.
  transformIgnorePatterns: [
    '/node_modules/(?!(htmlparser2|domhandler|domutils|dom-serializer|domelementtype|entities|hono|@hono|is-plain-object|escape-string-regexp|parse-entities|decode-named-character-reference|character-entities|character-entities-legacy|character-reference-invalid|is-alphanumerical|is-alphabetical|is-decimal|is-hexadecimal)/)',
  ],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
  testEnvironment: 'node',
};
export default {
  // A machine that is busy beside is slower, not wrong.
  testTimeout: 30_000,
  projects: [
    {
      ...shared,
      displayName: 'unit',
      rootDir: import.meta.dirname ?? '.',
      testMatch: [
        '<rootDir>/src/**/*.test.ts',
        '<rootDir>/marketplaces/**/*.test.ts',
        '<rootDir>/tests/structure/**/*.test.ts',
        '<rootDir>/tests/laws/**/*.test.ts',
      ],
    },
    {
      ...shared,
      displayName: 'integration',
      rootDir: import.meta.dirname ?? '.',
      testMatch: ['<rootDir>/tests/integration/**/*.test.ts'],
      setupFilesAfterEnv: ['<rootDir>/tests/support/second-try.ts'],
    },
  ],
};
