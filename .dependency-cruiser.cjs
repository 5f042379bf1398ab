/** The walls of the house; see docs/architecture.md. */
const core = (name) => `^src/lib/core/${name}/`;
/**
 * Inside the core a room may import only those listed, floor by floor: what a room may import, every room above it may.
 */
const base = ['base'];
const theory = [...base, 'theory'];
const chart = [...theory, 'chart'];
const neck = [...theory, 'neck'];
const harmony = [...chart, 'harmony'];
const approaches = [...harmony, 'approaches'];
const targets = [...harmony, 'neck', 'targets'];
const moment = [...approaches, 'neck', 'moment'];
const line = [...new Set([...moment, ...targets, 'line'])];
const plan = [...line, 'plan'];
const practice = [...line, 'practice'];
const takes = [...plan, 'takes'];
const formats = [...new Set([...plan, ...practice, ...takes, 'formats'])];
const rooms = {
  base,
  theory,
  chart,
  neck,
  harmony,
  approaches,
  targets,
  moment,
  line,
  plan,
  practice,
  takes,
  formats
};

const lib = (...names) => `^src/lib/(${names.join('|')})/`;
/** A room of the house and what it must not know. */
const wall = (name, from, to, extra = {}) => ({
  name,
  severity: 'error',
  from: { path: from, ...extra },
  to: { path: to }
});
/** Rooms of state, and the other rooms that each may use; what lies beside them is for all. */
const stateRooms = {
  chart: ['lines/client'],
  writing: ['chart/'],
  input: [],
  licks: [],
  practice: ['chart/'],
  songbook: ['chart/', 'lines/client'],
  lines: ['chart/', 'songbook/file-import'],
  book: ['chart/', 'lines/client'],
  stand: ['chart/', 'input/', 'practice/'],
  takes: ['chart/', 'input/', 'practice/', 'stand/']
};
const tests = { pathNot: '\\.test\\.ts$' };

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^src/lib/core/', ...tests },
      to: {
        pathNot: [
          '^src/lib/core/',
          '^node_modules/(@tonaljs|d3-array|d3-dsv|fastest-levenshtein|fast-xml-parser|fflate|midi-file|diff|ts-fsrs|pitchy|fft.js)'
        ]
      }
    },
    ...Object.entries(rooms).map(([room, allowed]) => ({
      name: `core-${room}`,
      severity: 'error',
      from: { path: core(room), ...tests },
      to: { path: '^src/lib/core/', pathNot: allowed.map(core) }
    })),
    ...Object.entries(stateRooms).map(([room, allowed]) => ({
      name: `state-${room}`,
      severity: 'error',
      from: { path: `^src/lib/state/${room}/`, ...tests },
      to: {
        path: '^src/lib/state/[^/]+/',
        pathNot: [`${room}/`, ...allowed].map((own) => `^src/lib/state/${own}`)
      }
    })),
    wall('api-knows-the-core-only', lib('api'), lib('workers', 'audio', 'server', 'state', 'ui'), tests),
    wall(
      'the-scenario-knows-the-core-only',
      lib('scenario'),
      lib('api', 'workers', 'audio', 'server', 'state', 'ui'),
      tests
    ),
    wall('workers-are-thin', lib('workers'), lib('audio', 'server', 'state', 'ui'), tests),
    wall('audio-knows-no-page', lib('audio'), lib('server', 'state', 'ui'), tests),
    wall('server-never-page', lib('server'), lib('state', 'ui', 'audio'), tests),
    wall('state-never-ui', lib('state'), lib('ui', 'server'), tests),
    wall('ui-never-server', lib('ui'), lib('server'), tests),
    wall(
      'kit-knows-no-music',
      '^src/lib/ui/kit/',
      ['^src/lib/core/', lib('state', 'api', 'audio'), '^src/lib/ui/(?!kit/)'],
      tests
    ),
    wall(
      'packages-of-the-page-stay-there',
      lib('core', 'api', 'server'),
      '^node_modules/(bits-ui|tone|svelte-sonner|@lucide|@codemirror)',
      tests
    ),
    wall(
      'one-owner-of-the-engraver',
      '^src/(?!lib/ui/score/engrave)',
      '^node_modules/(vexflow|@vexflow-fonts)',
      tests
    ),
    wall('one-owner-of-the-database', '^src/(?!lib/server/)', '^node_modules/(kysely|better-sqlite3)', tests)
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['svelte', 'import', 'default'] }
  }
};
