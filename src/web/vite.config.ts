import babel from '@rolldown/plugin-babel';
import react, { reactCompilerPreset } from '@vitejs/plugin-react';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  // The compiler keeps what a component has drawn for as long as nothing that it draws differs.
  plugins: [react(), babel({ presets: [reactCompilerPreset()] })],
  build: { outDir: '../Dibujo.Server/wwwroot', emptyOutDir: true, chunkSizeWarningLimit: 1200 },
  // A busy machine decides nothing.
  test: { testTimeout: 60_000 },
  server: { proxy: { '/api': 'http://127.0.0.1:5080', '/engine': 'http://127.0.0.1:5080' } },
});
