/**
 * Imports run one way. Between the rooms of the repository: web → contract, core; server → contract, core; demo → core,
 * contract; core → nothing. Between the parts of core, the server and the web: a part may import values only of those
 * that are named before it in its list; types may be imported from anywhere, for they leave nothing behind.
 */
const TESTS = '\\.(test|spec)\\.ts$|/(testBodies|testFacts|testServer|testCall|fakeServer|versionCases)\\.ts$'

const room = (name, allowed) => ({
  name: `${name}-imports`,
  severity: 'error',
  from: { path: `^${name}/` },
  to: {
    path: '^(core|contract|server|web|demo|cli|bench|e2e|bootstrap)/',
    pathNot: `^(${[name, ...allowed].join('|')})/`,
  },
})

/** One rule for each part: nothing of value from a part that is named after it. */
const layers = (root, parts) =>
  parts.slice(0, -1).map((part, i) => ({
    name: `${root}-${part.replace('/', '-')}-is-below`,
    comment: `${root}/${part} may not use ${parts.slice(i + 1).join(', ')}`,
    severity: 'error',
    from: { path: `^${root}/${part}/`, pathNot: TESTS },
    to: { path: `^${root}/(${parts.slice(i + 1).join('|')})/`, dependencyTypesNot: ['type-only'] },
  }))

/** From what everything stands on to what stands on everything. */
const CORE = [
  'words',
  'defaults',
  'math',
  'schemas',
  'raster',
  'mesh',
  'formats',
  'volume',
  'scan',
  'pose',
  'shape',
  'print/hanging',
  'print/slice',
  'print/orient',
  'print/support',
  'print/resin',
  'print/nest',
  'print/failure',
  'fit',
  'stock',
  'paint/optics',
  'paint/surface',
  'paint/recipes',
  'plan/materials',
  'paint/coats',
  'paint/order',
  'paint/stencil',
  'paint/lighting',
  'paint/eyes',
  'paint/palette',
  'operations',
  'checks',
  'plan/facts',
  'plan/steps',
  'plan/scheduling',
  'findings',
]
const SERVER = ['data', 'jobs', 'domain', 'devices', 'http', 'standins']

module.exports = {
  forbidden: [
    room('core', []),
    room('contract', ['core']),
    room('server', ['contract', 'core']),
    room('web', ['contract', 'core']),
    room('demo', ['core', 'contract']),
    { ...room('cli', ['core', 'contract']), to: { path: '^(server|web|demo|bench|e2e)/' } },
    ...layers('core', CORE),
    ...layers('server', SERVER),
    {
      name: 'every-part-of-core-has-its-place',
      comment: 'A new part of core is named in the list of this file, where it belongs',
      severity: 'error',
      from: { path: `^core/(?!(${CORE.join('|')})/)[^/]+/`, pathNot: TESTS },
      to: {},
    },
    {
      name: 'contract-takes-types-and-data',
      comment: 'Of core the contract takes types, and values only from where nothing is computed',
      severity: 'error',
      from: { path: '^contract/', pathNot: TESTS },
      to: {
        path: '^core/',
        pathNot: '^core/(defaults|schemas|words)/|^core/(operations|checks)/registry\\.ts$',
        dependencyTypesNot: ['type-only'],
      },
    },
    {
      name: 'core-libraries',
      severity: 'error',
      comment: 'core knows no DOM, Node, Vue, three.js or database',
      from: { path: '^core/', pathNot: TESTS },
      to: {
        dependencyTypes: ['npm', 'npm-dev', 'core'],
        pathNot:
          'node_modules/(fflate|saxes|manifold-3d|meshoptimizer|papaparse|pdf-lib|robust-predicates|zod|intl-messageformat)/',
      },
    },
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { extensions: ['.ts', '.vue', '.mjs', '.js'] },
  },
}
