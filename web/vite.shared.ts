import { readFileSync, writeFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { brotliCompressSync, gzipSync } from 'node:zlib'
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

/** What is worth being made smaller. */
const SMALLER = /\.(js|css|svg)$/

/** Writes files once more in the forms in which browsers take them smaller; and says which fonts are wanted first. */
const made = (): Plugin => ({
  name: 'made',
  apply: 'build',
  transformIndexHtml: {
    order: 'post',
    handler: (_, { bundle = {} }) =>
      Object.keys(bundle)
        .filter((name) => /(fraunces|next)-latin-wght-normal.*\.woff2$/.test(name))
        .map((name) => ({
          tag: 'link',
          attrs: { rel: 'preload', as: 'font', type: 'font/woff2', crossorigin: '', href: `/${name}` },
          injectTo: 'head',
        })),
  },
  async writeBundle({ dir = '' }, bundle) {
    for (const name of Object.keys(bundle).filter((name) => SMALLER.test(name))) {
      const file = resolve(dir, name)
      const plain = readFileSync(file)
      writeFileSync(`${file}.br`, brotliCompressSync(plain))
      writeFileSync(`${file}.gz`, gzipSync(plain, { level: 9 }))
    }
  },
})

/** Desk and door are two applications on two origins; only how they are built is the same. */
export const application = (name: 'door' | 'desk', devPort: number, relayPort: number): UserConfig =>
  defineConfig({
    root: resolve(import.meta.dirname, name),
    plugins: [readWords(), react(), tailwindcss(), made()],
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
