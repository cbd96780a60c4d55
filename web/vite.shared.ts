import { readFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { parse } from '@formatjs/icu-messageformat-parser'
import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig, type Plugin, type UserConfig } from 'vite'

/**
 * Reads the messages of the catalogues while an application is built, so that what reads them need not go along: the
 * door stays light.
 */
const readWords = (): Plugin => ({
  name: 'words',
  enforce: 'pre',
  load(id) {
    if (!/\/core\/words\/[a-z-]+\/[a-z-]+\.json$/.test(id)) return null
    const said = JSON.parse(readFileSync(id, 'utf8')) as Record<string, string>
    const read = Object.entries(said).map(([name, text]) => [name, parse(text, { captureLocation: false })])
    return { code: `export default ${JSON.stringify(Object.fromEntries(read))}`, moduleType: 'js', map: null }
  },
})

/** Desk and door are two applications on two origins; only how they are built is the same. */
export const application = (name: 'door' | 'desk', devPort: number, relayPort: number): UserConfig =>
  defineConfig({
    root: resolve(import.meta.dirname, name),
    plugins: [readWords(), react(), tailwindcss()],
    resolve: {
      alias: { '@formatjs/icu-messageformat-parser': '@formatjs/icu-messageformat-parser/no-parser.js' },
    },
    // Workers wait for the desk to say which of its databases it is.
    worker: {
      format: 'es',
      plugins: () => [readWords()],
      rolldownOptions: { checks: { bundlerTimings: false } },
    },
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
