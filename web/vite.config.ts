import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
  build: {
    // The Go package beside this file embeds dist; .keep lets it compile before a build.
    emptyOutDir: true,
    assetsInlineLimit: 0, // the content policy has no data: fonts or scripts
    reportCompressedSize: false,
  },
  server: { proxy: { '/api': 'http://127.0.0.1:8254' } },
});
