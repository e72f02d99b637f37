/** The walls of docs/architecture.md. @type {import('dependency-cruiser').IConfiguration} */
/** Tests, and what only they read. */
const TEST = '\\.test\\.tsx?$|/(second-reading|meeting-day|program-day|worlds)\\.ts$';
const area = (name, others) => ({
  name: `core-${name}`,
  severity: 'error',
  from: { path: `^src/core/${name}/`, pathNot: TEST },
  to: { path: '^src/core/', pathNot: `^src/core/(${[name, ...others].join('|')})/` },
});
/** The areas of the job, each with those whose operations it may reach; every one of them may reach `deciding`, the floor. */
const AREAS = {
  deciding: [],
  items: [],
  sharing: ['items'],
  people: ['items', 'sharing'],
  meetings: ['items'],
  reminders: [],
  openings: ['items'],
  lanes: [],
  search: [],
  suggestions: ['items', 'people', 'meetings'],
  messages: ['reminders', 'items', 'sharing', 'people', 'suggestions', 'meetings'],
  frame: ['items', 'sharing', 'people', 'suggestions', 'messages'],
  dav: ['items', 'meetings', 'lanes'],
  'in-worker': ['items', 'sharing', 'meetings', 'openings', 'search', 'dav'],
};
const areaWalls = Object.entries(AREAS).map(([name, others]) => ({
  name: `area-${name}`,
  comment: 'The order of the areas stands in docs/architecture.md; a circle among them is never the answer.',
  severity: 'error',
  from: { path: `^src/server/operations/${name}/`, pathNot: TEST },
  to: {
    path: '^src/server/operations/',
    pathNot: `^src/server/operations/${name}/|^src/server/operations/(${['deciding', ...others].join('|')})/index\\.ts$`,
  },
}));
/** The same areas' screens: each with those whose components it may show; every one of them may use `common`. */
const SCREENS = {
  common: [],
  meetings: [],
  items: ['meetings'],
  people: [],
  sharing: ['items', 'people'],
  suggestions: ['items'],
  messages: ['sharing', 'suggestions', 'meetings'],
  openings: ['items', 'meetings'],
  frame: ['items'],
};
const screenWalls = Object.entries(SCREENS).map(([name, others]) => ({
  name: `screens-${name}`,
  severity: 'error',
  from: { path: `^src/ui/${name}/` },
  to: { path: '^src/ui/', pathNot: `^src/ui/(${[name, 'common', ...others].join('|')})/|^src/ui/[^/]+$` },
}));
module.exports = {
  forbidden: [
    ...areaWalls,
    ...screenWalls,
    {
      name: 'operations-have-areas',
      comment: 'Beside the areas only tests of several of them stand, and what those share.',
      severity: 'error',
      from: {
        path: `^src/server/operations/(?!(${Object.keys(AREAS).join('|')})/)`,
        pathNot: `${TEST}|/(small-organisation|at-work|reply-in-mail)\\.ts$`,
      },
      to: { path: '.' },
    },
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-imports-only',
      severity: 'error',
      from: { path: '^src/core/', pathNot: TEST },
      to: {
        pathNot: '^src/core/|^node_modules/(zod|temporal-polyfill|temporal-spec|ical\\.js|papaparse|@types/papaparse)/',
      },
    },
    {
      name: 'csv-in-formats',
      severity: 'error',
      from: { path: '^src/', pathNot: '^src/core/formats/' },
      to: { path: '^node_modules/papaparse/' },
    },
    {
      name: 'ical-in-formats',
      severity: 'error',
      from: { path: '^src/', pathNot: '^src/core/formats/' },
      to: { path: '^node_modules/ical\\.js/' },
    },
    area('time', []),
    area('calendar', ['time']),
    area('recurrence', ['time', 'calendar']),
    area('collection', ['calendar']),
    area('access', ['time', 'calendar', 'collection']),
    area('formats', ['time', 'calendar', 'recurrence', 'meetings']),
    area('review', ['time', 'calendar']),
    area('meetings', ['time', 'calendar']),
    area('openings', ['time']),
    area('sentence', ['time']),
    {
      name: 'areas-meet-at-the-door',
      severity: 'error',
      from: { path: '^src/core/([^/]+)/', pathNot: TEST },
      to: { path: '^src/core/[^/]+/(?!index\\.ts$)', pathNot: '^src/core/$1/' },
    },
    {
      name: 'core-by-its-doors',
      severity: 'error',
      from: { path: '^src/(?!core/)', pathNot: TEST },
      to: { path: '^src/core/[^/]+/(?!index\\.ts$)' },
    },
    {
      name: 'only-operations-decide',
      severity: 'error',
      from: { path: '^src/', pathNot: `^src/server/operations/|^src/core/access/|${TEST}` },
      to: { path: '^src/core/access/', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'the-browser-holds-no-rule',
      severity: 'error',
      from: { path: '^src/(ui|contract|web-workers)/' },
      to: { path: '^src/(core/access|server)/', reachable: true },
    },
    {
      name: 'routes-call-operations',
      severity: 'error',
      from: { path: '^src/(app|server/http/handlers)/' },
      to: { path: '^src/server/(db|repositories|jobs)/' },
    },
    {
      name: 'stand-ins-in-one-place',
      severity: 'error',
      from: { path: '^src/', pathNot: `${TEST}|^src/server/stand-ins\\.ts$` },
      to: { path: '^standins/' },
    },
    {
      name: 'items-by-one-door',
      comment: 'Items are written through writeItems; a file comes in by slices of its own.',
      severity: 'error',
      from: {
        path: '^src/',
        pathNot: `${TEST}|^src/server/operations/(deciding/writing/(write-items|lapse)|items/bring-in)\\.ts$`,
      },
      to: { path: '^src/server/repositories/item-writes\\.ts$' },
    },
    {
      name: 'rows-stay-home',
      severity: 'error',
      from: { path: '^src/', pathNot: '^src/server/(repositories|operations|db)/' },
      to: { path: '^src/server/repositories/' },
    },
    {
      name: 'xml-in-dav',
      severity: 'error',
      from: { path: '^src/', pathNot: '^src/server/http/dav/' },
      to: { path: '^node_modules/@xmldom/' },
    },
    {
      name: 'sqlite-in-db',
      severity: 'error',
      from: { path: '^src/', pathNot: '^src/server/db/' },
      to: { path: '^node_modules/better-sqlite3/', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'server-has-no-screen',
      severity: 'error',
      from: { path: '^src/server/', pathNot: TEST },
      to: { path: '^node_modules/(react|react-dom|@mui|@emotion)/|^src/(ui|app)/' },
    },
    {
      name: 'src-stands-alone',
      severity: 'error',
      from: { path: '^src/' },
      to: { path: '^(demo|e2e|tests|bench|cli)/' },
    },
    { name: 'e2e-knows-no-source', severity: 'error', from: { path: '^e2e/' }, to: { path: '^src/' } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '/\\.next/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
