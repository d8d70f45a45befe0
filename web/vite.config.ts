import { lingui } from '@lingui/vite-plugin';
import babel from '@rolldown/plugin-babel';
import react from '@vitejs/plugin-react';
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { defineConfig, type Plugin } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';
import { compiled } from './compiled.ts';

export default defineConfig({
  plugins: [
    react(),
    lingui({ failOnMissing: true }),
    // extract: with the English in the code, not by its key alone
    babel({
      plugins: [['@lingui/babel-plugin-lingui-macro', { extract: true }], compiled],
      parserOpts: { plugins: ['typescript', 'jsx'] },
    }),
    firstThings(),
    VitePWA({
      registerType: 'prompt',
      injectRegister: null, // src/app/NewVersion.tsx does it, once the first page stands
      manifest: {
        name: 'Corte',
        short_name: 'Corte',
        description: 'Workshop companion for circular saw blades',
        start_url: '/',
        display: 'standalone',
        background_color: '#f4efe4',
        theme_color: '#f4efe4',
        icons: [
          { src: '/favicon.svg', sizes: 'any', type: 'image/svg+xml' },
          { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
          { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'any' },
        ],
      },
      workbox: {
        globPatterns: ['assets/*.{js,css,woff2,wasm}'],
        maximumFileSizeToCacheInBytes: 10 << 20, // the core, for when the server is away // the icons come with the manifest
        // The page comes from the server with its own nonce in it; it is kept as it came.
        navigateFallback: '/',
        navigateFallbackDenylist: [/^\/api\//],
        manifestTransforms: [
          (all) => ({
            manifest: [...all, { url: '/', revision: revision(all.map((f) => f.url + f.revision)), size: 0 }],
          }),
        ],
        inlineWorkboxRuntime: true,
      },
    }),
  ],
  build: {
    // The Go package beside this file embeds dist; .keep lets it compile before a build.
    emptyOutDir: true,
    // The page itself asks for what src/start.tsx needs, below.
    modulePreload: {
      polyfill: false,
      resolveDependencies: (file, needs) => (file.includes('/start-') ? [] : needs),
    },
    assetsInlineLimit: 0, // the content policy has no data: fonts or scripts
    reportCompressedSize: false,
    license: { fileName: 'licences.json' }, // read by the server (internal/licences)
  },
  server: { proxy: { '/api': 'http://127.0.0.1:8254' } },
});

/** Of a page that names all the files: another one as soon as one of them is. */
function revision(files: string[]) {
  const page = readFileSync(new URL('./index.html', import.meta.url));
  return createHash('sha256').update(page).update(files.sort().join('\n')).digest('hex').slice(0, 16);
}

/**
 * What is asked for with the page itself: the faces, so that no word changes its width once it
 * stands, and the application (src/start.tsx), which waits for the language alone.
 */
function firstThings(): Plugin {
  return {
    name: 'first-things',
    transformIndexHtml: {
      order: 'post',
      handler: (html, { bundle = {} }) => {
        const link = (href: string, attrs: Record<string, string>) => ({
          tag: 'link',
          attrs: { ...attrs, crossorigin: '', href: `/${href}` },
          injectTo: 'head' as const,
        });
        const scripts = new Set<string>();
        const needs = (file: string) => {
          const chunk = bundle[file];
          if (chunk?.type !== 'chunk' || scripts.has(file)) return;
          scripts.add(file);
          chunk.imports.forEach(needs);
        };
        for (const chunk of Object.values(bundle))
          if (chunk.type === 'chunk' && chunk.facadeModuleId?.endsWith('/src/start.tsx'))
            needs(chunk.fileName);
        return [
          ...[...scripts].filter((f) => !html.includes(f)).map((f) => link(f, { rel: 'modulepreload' })),
          ...Object.keys(bundle)
            .filter((f) => f.endsWith('.woff2'))
            .map((f) => link(f, { rel: 'preload', as: 'font', type: 'font/woff2' })),
        ];
      },
    },
  };
}
