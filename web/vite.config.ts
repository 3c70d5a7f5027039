import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react(), tailwindcss()],
  // The fonts are the ones the printed sheets are set in.
  // Served from the same machine: one file is quicker than many.
  build: { chunkSizeWarningLimit: 800 },
  server: { proxy: { '/api': 'http://127.0.0.1:4747' }, fs: { allow: ['..'] } },
});
