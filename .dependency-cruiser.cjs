/** Which folder may import which: web → core ← server, and nothing else. */
module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-stands-alone',
      comment:
        'core is pure: it imports no other folder, no interface and no I/O; only itself, Joi (schemas), i18next (words) decimal.js (expressions) and sucrase (types of TypeScript, the same in the browser and in the sandbox).',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: { pathNot: ['^core/', '^node_modules/(joi|i18next|sucrase|decimal\\.js)'] },
    },
    {
      name: 'web-knows-core-only',
      severity: 'error',
      from: { path: '^web/', pathNot: ['\\.test\\.tsx?$', '^web/testing/'] },
      to: { path: '^(server|demo|e2e|bench)/' },
    },
    {
      name: 'server-knows-core-only',
      severity: 'error',
      from: { path: '^server/' },
      to: { path: '^(web|demo|e2e|bench)/' },
    },
    {
      name: 'schemas-are-for-the-server',
      comment:
        'The desk carries no validation library: schemas are loaded by the server and by authoring. e2e/bundle.spec.ts checks the built files.',
      severity: 'error',
      from: {
        path: '^(web/|core/kinds/[^/]+/(candidate|response|content)\\.ts$)',
        pathNot: '\\.test\\.tsx?$',
      },
      to: { path: '^(node_modules/joi|core/validation/)' },
    },
    {
      name: 'a-kind-imports-no-other-kind',
      severity: 'error',
      from: { path: '^(core|web)/kinds/([a-z-]+)/' },
      to: { path: '^$1/kinds/([a-z-]+)/', pathNot: ['^$1/kinds/$2/', '^(core|web)/kinds/shared/'] },
    },
    {
      name: 'workbooks-are-written-apart',
      comment:
        'exceljs brings packages that nobody keeps any more: they are loaded by the process that reads for staff, and nowhere else.',
      severity: 'error',
      from: { pathNot: ['^server/reading/exportRows\\.ts$', '\\.test\\.ts$'] },
      to: { path: '^node_modules/exceljs' },
    },
    {
      name: 'lists-of-people-are-read-apart',
      comment:
        'A hostile list takes time: it is read in the process that reads for staff (server/rounds/peopleFile.ts).',
      severity: 'error',
      from: { pathNot: ['^server/rounds/peopleFile\\.ts$', '\\.test\\.ts$'] },
      to: { path: '^server/people/readPeople\\.ts$' },
    },
    {
      name: 'desk-loads-no-marking',
      severity: 'error',
      from: { path: '^web/(desk|arrival)/' },
      to: { path: '^web/(marking|rounds|accounts)/' },
    },
  ],
  options: {
    tsConfig: { fileName: 'tsconfig.json' },
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'browser', 'default'],
    },
  },
};
