import node from '@astrojs/node';
import react from '@astrojs/react';
import { defineConfig } from 'astro/config';
import { DIRECTIVES, SCRIPTS, STYLES } from './src/server/policy';

// core and stand-ins are used from their sources, so that one build makes everything
const conditions = ['pebble-source', 'module', 'import', 'default'];

// components that say 'use memo' keep what has not changed of them: those beside a hand that drags
export default defineConfig({
  output: 'server',
  adapter: node({ mode: 'standalone' }),
  integrations: [
    react({
      // nothing else has elements in it, nor says so: the compiler would read the core and all packages, too
      include: /\.tsx$/,
      babel: { plugins: [['babel-plugin-react-compiler', { compilationMode: 'annotation' }]] },
    }),
  ],
  server: { host: '127.0.0.1', port: 4173 },
  devToolbar: { enabled: false },
  // no picture is made by the server: what it would do for anyone who asks takes gigabytes
  image: { endpoint: { route: '/_image', entrypoint: './src/server/noImages.ts' } },
  experimental: {
    csp: {
      directives: [...DIRECTIVES],
      scriptDirective: { resources: SCRIPTS },
      styleDirective: { resources: STYLES },
    },
  },
  vite: {
    resolve: { conditions: [...conditions, 'browser'] },
    ssr: { resolve: { conditions }, noExternal: ['@pebble-hall/core', '@pebble-hall/stand-ins'] },
    worker: { format: 'es' },
    build: { chunkSizeWarningLimit: 900 },
  },
});
