import { resolve } from 'node:path'
import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig, type UserConfig } from 'vite'

/** Desk and door are two applications on two origins; only how they are built is the same. */
export const application = (name: 'door' | 'desk', devPort: number, relayPort: number): UserConfig =>
  defineConfig({
    root: resolve(import.meta.dirname, name),
    plugins: [react(), tailwindcss()],
    // Workers wait for the desk to say which of its databases it is.
    worker: { format: 'es', rolldownOptions: { checks: { bundlerTimings: false } } },
    build: {
      outDir: resolve(import.meta.dirname, 'dist', name),
      emptyOutDir: true,
      // Fonts and pictures as files of their own: the Content-Security-Policy allows no others.
      assetsInlineLimit: 0,
      // The largest is the public holidays of all countries, loaded when somebody asks for them.
      chunkSizeWarningLimit: 1_500,
      rolldownOptions: {
        // How long a plugin took on a busy machine is no warning about the code.
        checks: { bundlerTimings: false },
        output: {
          codeSplitting: {
            groups: [
              {
                name: 'libraries',
                test: /node_modules\/(react|react-dom|react-router|@tanstack|scheduler)\//,
              },
            ],
          },
        },
      },
      modulePreload: { polyfill: false },
    },
    server: { port: devPort, strictPort: true, proxy: { '/api': `http://localhost:${relayPort}` } },
  })
