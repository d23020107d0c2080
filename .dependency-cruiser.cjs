/** Imports run one way (architecture): web → contract, core; server → contract, core; demo → core, contract; core → nothing. */
const room = (name, allowed) => ({
  name: `${name}-imports`,
  severity: 'error',
  from: { path: `^${name}/` },
  to: {
    path: '^(core|contract|server|web|demo|cli|bench|e2e|bootstrap)/',
    pathNot: `^(${[name, ...allowed].join('|')})/`,
  },
})
module.exports = {
  forbidden: [
    room('core', []),
    room('contract', ['core']),
    room('server', ['contract', 'core']),
    room('web', ['contract', 'core']),
    room('demo', ['core', 'contract']),
    { ...room('cli', ['core', 'contract']), to: { path: '^(server|web|demo|bench|e2e)/' } },
    {
      name: 'core-libraries',
      severity: 'error',
      comment: 'core knows no DOM, Node, Vue, three.js or database',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: {
        dependencyTypes: ['npm', 'npm-dev', 'core'],
        pathNot: 'node_modules/(fflate|saxes|manifold-3d|meshoptimizer|pdf-lib|robust-predicates)/',
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
