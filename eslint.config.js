import tseslint from 'typescript-eslint';
import reactHooks from 'eslint-plugin-react-hooks';

/** Which part may use which, and that no imports go in a circle, is checked by scripts/checkImports.mjs. */
const forbid = (...patterns) => ({ 'no-restricted-imports': ['error', { patterns }] });
const noApp = { group: ['@pebble-hall/app*', '**/app/*'], message: 'Only app may use app.' };
const noStandIns = {
  group: ['@pebble-hall/stand-ins*', '**/stand-ins/*'],
  message: 'core knows no stand-ins.',
};
const noInterface = {
  group: [
    'react',
    'react-dom',
    '@mantine/*',
    'recharts',
    'dexie*',
    'astro*',
    'comlink',
    'zustand*',
    'node:*',
  ],
  message: 'The computation has no interface, no storage and no Node code.',
};
const noIcons = {
  group: ['@tabler/icons-react'],
  message: 'An icon goes through app/src/icons: the index reads six thousand files.',
};
const noCoreFiles = { group: ['**/core/src/*', '**/stand-ins/src/*'], message: 'Import the package entry.' };

export default tseslint.config(
  { ignores: ['**/dist/', '**/.astro/', 'node_modules/', 'app/public/', 'app/src/env.d.ts'] },
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      eqeqeq: 'error',
      'prefer-const': 'error',
    },
  },
  { files: ['core/src/**/*.ts'], ignores: ['**/*.test.ts'], rules: forbid(noApp, noStandIns, noInterface) },
  { files: ['core/src/**/*.test.ts'], rules: forbid(noApp, noStandIns) },
  { files: ['stand-ins/src/**/*.ts'], rules: forbid(noApp, noInterface, noCoreFiles) },
  {
    files: ['app/src/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: {
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      ...forbid(noCoreFiles, noIcons),
    },
  },
  { files: ['app/src/icons/**'], rules: forbid(noCoreFiles) },
  {
    files: ['app/src/{store,ports,workers}/**/*.{ts,tsx}'],
    rules: forbid(noCoreFiles, {
      group: ['@mantine/*', 'recharts'],
      message: 'Store, ports and workers know no interface.',
    }),
  },
);
