import boundaries from 'eslint-plugin-boundaries';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** Rooms of the core from the ground up: each may use only those before it, as docs/architecture.md draws them. */
const CORE_ROOMS = {
  shared: [],
  contracts: [],
  music: ['shared'],
  chart: ['shared', 'contracts', 'music'],
  neck: ['shared', 'music'],
  plan: ['shared', 'music', 'chart', 'neck'],
  sound: ['shared'],
  transcribe: ['shared', 'sound'],
  align: ['shared', 'sound'],
  analyse: ['shared', 'music', 'chart', 'plan'],
  findings: ['shared', 'music', 'chart', 'neck', 'plan', 'analyse', 'drills'],
  notation: ['shared', 'music', 'chart', 'neck', 'analyse'],
  formats: [
    'shared',
    'contracts',
    'music',
    'chart',
    'neck',
    'plan',
    'analyse',
    'findings',
    'correct',
    'notation',
  ],
  correct: ['shared', 'chart', 'analyse'],
  lines: ['shared'],
  phrases: ['shared', 'contracts', 'music', 'chart', 'analyse'],
  drills: ['shared', 'music', 'chart', 'neck', 'plan', 'analyse', 'lines', 'phrases'],
  scheduling: ['shared', 'music', 'analyse', 'findings'],
  review: ['shared', 'music', 'chart', 'neck', 'plan', 'analyse', 'findings', 'correct'],
  assessment: ['shared', 'music', 'chart', 'neck', 'plan', 'analyse', 'findings', 'correct', 'review'],
  band: ['shared', 'music', 'chart', 'plan', 'analyse', 'lines', 'sound'],
};

const core = (rooms) => ({ element: { type: 'core', captured: { room: rooms } } });
const layer = (...types) => types.map((type) => ({ element: { type } }));

const corePolicies = Object.entries(CORE_ROOMS).map(([room, uses]) => ({
  from: core(room),
  allow: { to: [room, ...uses].map((name) => core(name)) },
}));

/** Nothing outside a room reaches past its list of public names. */
const deepImports = Object.keys(CORE_ROOMS).map((room) => `@/core/${room}/*`);

export default tseslint.config(
  {
    ignores: [
      '.next/**',
      'dist/**',
      'node_modules/**',
      'public/**',
      'next-env.d.ts',
      'test-results/**',
      '.tmp/**',
      'coverage/**',
    ],
  },
  ...tseslint.configs.recommended,
  {
    files: ['src/**/*.{ts,tsx}', 'bin/**/*.ts', 'scripts/**/*.ts'],
    // a test may hold one room against another: what the band plays must be what the ears hear
    ignores: ['**/*.test.{ts,tsx}'],
    plugins: { boundaries },
    settings: {
      'import/resolver': { typescript: { project: './tsconfig.json' } },
      'boundaries/elements': [
        { type: 'core', pattern: 'src/core/*', capture: ['room'] },
        { type: 'presentation', pattern: 'src/presentation' },
        { type: 'ui', pattern: 'src/ui' },
        { type: 'workers', pattern: 'src/workers' },
        { type: 'audio', pattern: 'src/audio' },
        { type: 'server', pattern: 'src/server' },
        { type: 'feature', pattern: 'src/features/*', capture: ['screen'] },
        { type: 'app', pattern: 'src/app' },
        { type: 'command', pattern: 'bin' },
        { type: 'script', pattern: 'scripts' },
      ],
    },
    rules: {
      'boundaries/dependencies': [
        'error',
        {
          default: 'disallow',
          policies: [
            ...corePolicies,
            // what is said of music in words: known to all that shows or prints it
            { from: layer('presentation'), allow: { to: layer('presentation', 'audio', 'core') } },
            { from: layer('ui'), allow: { to: layer('ui', 'presentation', 'core') } },
            { from: layer('workers'), allow: { to: layer('workers', 'core') } },
            { from: layer('audio'), allow: { to: layer('audio', 'workers', 'core') } },
            { from: layer('server'), allow: { to: layer('server', 'presentation', 'core') } },
            // features never import one another; all stand in the shell
            {
              from: layer('feature'),
              allow: {
                to: [
                  ...layer('ui', 'presentation', 'audio', 'workers', 'core', 'server'),
                  { element: { type: 'feature', captured: { screen: 'shell' } } },
                  {
                    element: { type: 'feature', captured: { screen: '{{ from.element.captured.screen }}' } },
                  },
                ],
              },
            },
            {
              from: layer('app'),
              allow: { to: layer('app', 'feature', 'ui', 'presentation', 'server', 'core') },
            },
            { from: layer('command'), allow: { to: layer('command', 'presentation', 'core', 'server') } },
            {
              from: layer('script'),
              allow: { to: layer('script', 'presentation', 'core', 'server', 'audio') },
            },
          ],
        },
      ],
      'no-restricted-imports': [
        'error',
        { patterns: [{ group: deepImports, message: 'Import a room by its index: @/core/<room>.' }] },
      ],
    },
  },
  {
    // what a screen computes in the browser must not carry the database with it: only types come from the server
    files: ['src/features/**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: ['@/server/*'],
              allowTypeImports: true,
              message: 'Screens take only types from the server.',
            },
            { group: deepImports, message: 'Import a room by its index.' },
          ],
        },
      ],
    },
  },
  {
    files: ['src/**/*.tsx', 'src/features/**/*.ts'],
    plugins: { 'react-hooks': reactHooks },
    rules: reactHooks.configs.recommended.rules,
  },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/consistent-type-imports': 'error',
      'no-nested-ternary': 'error',
    },
  },
  {
    // a function that cannot be seen whole is split, not excused
    files: ['src/**/*.{ts,tsx}', 'bin/**/*.ts', 'scripts/**/*.{ts,mjs}'],
    ignores: ['**/*.test.{ts,tsx}'],
    linterOptions: { reportUnusedDisableDirectives: 'error' },
    rules: {
      complexity: ['error', 15],
      'max-lines-per-function': ['error', { max: 80, skipBlankLines: true, skipComments: true }],
    },
  },
);
