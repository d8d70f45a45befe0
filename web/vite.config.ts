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
    facesFirst(),
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

/** The faces are asked for with the page itself, so that no word changes its width once it stands. */
function facesFirst(): Plugin {
  return {
    name: 'faces-first',
    transformIndexHtml: {
      order: 'post',
      handler: (_, { bundle = {} }) =>
        Object.keys(bundle)
          .filter((file) => file.endsWith('.woff2'))
          .map((file) => ({
            tag: 'link',
            attrs: { rel: 'preload', as: 'font', type: 'font/woff2', crossorigin: '', href: `/${file}` },
            injectTo: 'head' as const,
          })),
    },
  };
}
