// The order of the house: imports run downwards only and never in a circle. Read by `npm test` and `npm run order`.

/** The folders of `services`, each may import those before it. */
const services = [
  'access',
  'records',
  'changes',
  'routines',
  'items',
  'photos',
  'accounts',
  'listings',
  'stock',
  'sync',
  'outbox',
  'labels',
  'intake',
  'consignments',
  'kits',
  'artwork',
  'insights',
  'exporting',
  'importing',
  'gathering',
  'tasks',
  'lists',
  'audit',
  'summaries',
];
/** From each part of the sources, what it may import besides itself. */
const parts = {
  core: [],
  web: ['config'],
  config: [],
  db: ['core', 'config'],
  outside: ['core', 'config'],
  photos: ['core', 'config', 'outside'],
  files: ['core', 'config'],
  markets: ['core', 'config'],
  services: ['core', 'config', 'db', 'outside', 'photos', 'files', 'markets'],
  worker: ['core', 'config', 'db', 'photos', 'markets', 'services'],
  http: ['core', 'config', 'photos', 'files', 'services'],
  ui: ['core'],
  app: ['core', 'config', 'db', 'photos', 'services', 'http', 'ui'],
  proxy: ['web'],
};
const inside = (names) => `^src/(${names.join('|')})(/|\\.ts$)`;
const tests = '\\.(test|test-data)\\.tsx?$';
const typesOnly = 'type-only';

const partRules = Object.entries(parts).map(([part, below]) => ({
  name: `${part}-imports-downwards-only`,
  severity: 'error',
  from: { path: inside([part]), pathNot: tests },
  to: {
    path: '^(src|marketplaces|demo|tests)/',
    pathNot: inside([part, ...below]),
    // Screens name the shapes that services and endpoints return; such imports leave nothing in the page.
    ...(part === 'ui' ? { dependencyTypesNot: [typesOnly] } : {}),
  },
}));

const serviceRules = services.map((folder, index) => ({
  name: `services-${folder}-imports-downwards-only`,
  severity: 'error',
  from: { path: `^src/services/${folder}/`, pathNot: tests },
  to: { path: '^src/services/', pathNot: `^src/services/(${services.slice(0, index + 1).join('|')})/` },
}));

export default {
  forbidden: [
    { name: 'no-circle', severity: 'error', from: {}, to: { circular: true } },
    ...partRules,
    ...serviceRules,
    {
      name: 'core-is-pure',
      comment: 'The core imports nothing but itself and small pure packages.',
      severity: 'error',
      from: { path: '^src/core/', pathNot: tests },
      to: {
        pathNot: '^(src/core/|node_modules/(zod|liquidjs|parse-entities|entities|date-fns|expr-eval-fork|re2js)/)',
      },
    },
    {
      name: 'separate-worlds',
      comment: 'Marketplaces are strangers: only HTTP between them and Netting.',
      severity: 'error',
      from: { path: '^marketplaces/' },
      to: { path: '^(src|demo|tests)/' },
    },
    {
      name: 'screens-call-services-over-http',
      comment: 'What runs in the browser names services by type alone; pages and layouts run on the server.',
      severity: 'error',
      from: { path: '^src/app/\\(shop\\)/.*/_', pathNot: tests },
      to: { path: '^src/(services|http|db|markets|photos|worker)/', dependencyTypesNot: [typesOnly] },
    },
    {
      name: 'resolvable',
      severity: 'error',
      from: {},
      to: { couldNotResolve: true },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '\\.css$|^\\.next' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      extensions: ['.ts', '.tsx', '.mjs', '.js', '.json'],
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
