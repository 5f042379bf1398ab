/** The walls of the house; see docs/architecture.md. */
const core = (name) => `^src/lib/core/${name}/`;
/** Inside the core a room may import only those listed. */
const rooms = {
  theory: ['theory'],
  chart: ['theory', 'chart'],
  harmony: ['theory', 'chart', 'harmony'],
  approaches: ['theory', 'chart', 'harmony', 'approaches'],
  neck: ['theory', 'neck'],
  targets: ['theory', 'chart', 'harmony', 'neck', 'targets'],
  practice: ['theory', 'chart', 'harmony', 'neck', 'targets', 'moment', 'practice'],
  formats: ['theory', 'chart', 'harmony', 'practice', 'formats']
};

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^src/lib/core/', pathNot: '\\.test\\.ts$' },
      to: { pathNot: ['^src/lib/core/', '^node_modules/(tonal|@tonaljs|fastest-levenshtein|midi-file)'] }
    },
    ...Object.entries(rooms).map(([room, allowed]) => ({
      name: `core-${room}`,
      severity: 'error',
      from: { path: core(room), pathNot: '\\.test\\.ts$' },
      to: { path: '^src/lib/core/', pathNot: allowed.map(core) }
    })),
    {
      name: 'ui-never-server',
      severity: 'error',
      from: { path: '^src/lib/(ui|state)/' },
      to: { path: '^src/lib/server/' }
    },
    {
      name: 'server-never-ui',
      severity: 'error',
      from: { path: '^src/lib/server/' },
      to: { path: '^src/lib/(ui|state)/' }
    }
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['svelte', 'import', 'default'] }
  }
};
