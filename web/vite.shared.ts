import { createHash } from 'node:crypto'
import { readFileSync, statSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { resolve } from 'node:path'
import { brotliCompressSync, gzipSync } from 'node:zlib'
import { parse } from '@formatjs/icu-messageformat-parser'
import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { build, defineConfig, type Plugin, type UserConfig } from 'vite'

/**
 * Reads the messages of the catalogues while an application is built, so that what reads them need not go along: the
 * door stays light.
 */
const readWords = (): Plugin => ({
  name: 'words',
  enforce: 'pre',
  load(id) {
    if (!/\/core\/words\/[a-z-]+\/(?!places)[a-z-]+\.json$/.test(id)) return null
    const said = JSON.parse(readFileSync(id, 'utf8')) as Record<string, string>
    const read = Object.entries(said).map(([name, text]) => [name, parse(text, { captureLocation: false })])
    return { code: `export default ${JSON.stringify(Object.fromEntries(read))}`, moduleType: 'js', map: null }
  },
})

/** What says messages gets them read already, and does without what reads them; what writes them has it. */
const withoutReader = (): Plugin => ({
  name: 'without-reader',
  enforce: 'pre',
  resolveId(source, importer) {
    return source === '@formatjs/icu-messageformat-parser' && importer?.includes('/intl-messageformat/')
      ? this.resolve('@formatjs/icu-messageformat-parser/no-parser.js', importer)
      : null
  },
})

/** Of the currencies, their codes and decimals: neither names nor countries are looked at. */
const fewerWords = (): Plugin => ({
  name: 'fewer-words',
  enforce: 'pre',
  load(id) {
    if (!/currency-codes\/data\.js$/.test(id)) return null
    const all = createRequire(id)(id) as { code: string; digits: number }[]
    return {
      code: `module.exports = ${JSON.stringify(all.map(({ code, digits }) => ({ code, digits })))}`,
      map: null,
    }
  },
})

/** What the contract says for the documents: pages ask through it, and say nothing of it. */
const undocumented = (): Plugin => ({
  name: 'undocumented',
  enforce: 'pre',
  transform: (code, id) =>
    /\/core\/contract\/(?:desk|door)-endpoints\.ts$/.test(id)
      ? { code: code.replaceAll(/\bsays:\s*(?:'[^'\n]*'|`[^`]*`)/g, "says: ''"), map: null }
      : null,
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

/** What is larger than this is kept when it is first used, in bytes. */
const KEPT_AT_ONCE = 500_000

/** Builds the worker that keeps an application for when its relay does not answer, with the names of its files. */
const offline = (entry: string): Plugin => ({
  name: 'offline',
  apply: 'build',
  async writeBundle({ dir = '' }, bundle) {
    const files = Object.keys(bundle)
      .filter(
        (name) => /\.(js|css|svg|woff2)$/.test(name) && statSync(resolve(dir, name)).size <= KEPT_AT_ONCE,
      )
      .map((name) => `/${name}`)
      .sort()
    const name = createHash('sha256').update(Object.keys(bundle).sort().join(' ')).digest('hex').slice(0, 12)
    const built = await build({
      configFile: false,
      logLevel: 'error',
      define: { __BUILT__: JSON.stringify({ name, files }) },
      build: {
        write: false,
        target: 'es2022',
        rolldownOptions: {
          input: entry,
          output: { format: 'iife', entryFileNames: 'sw.js' },
          checks: { bundlerTimings: false },
        },
      },
    })
    const [result] = Array.isArray(built) ? built : [built]
    const [chunk] = 'output' in result! ? result.output : []
    if (chunk?.type !== 'chunk') throw new Error('The worker for offline use was not built.')
    writeFileSync(resolve(dir, 'sw.js'), chunk.code)
  },
})

/** Desk and door are two applications on two origins; only how they are built is the same. */
export const application = (name: 'door' | 'desk', devPort: number, relayPort: number): UserConfig =>
  defineConfig({
    root: resolve(import.meta.dirname, name),
    plugins: [
      readWords(),
      withoutReader(),
      fewerWords(),
      undocumented(),
      react(),
      tailwindcss(),
      made(),
      ...(name === 'desk' ? [offline(resolve(import.meta.dirname, 'desk', 'offline', 'worker.ts'))] : []),
    ],
    // Workers wait for the desk to say which of its databases it is.
    worker: {
      format: 'es',
      plugins: () => [readWords(), withoutReader(), fewerWords()],
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
        ...(name === 'desk'
          ? {
              input: ['index.html', 'away.html'].map((page) => resolve(import.meta.dirname, 'desk', page)),
            }
          : {}),
        // How long a plugin took on a busy machine is no warning about the code.
        checks: { bundlerTimings: false },
        output: {
          codeSplitting: {
            groups: [
              {
                name: 'libraries',
                test: /node_modules\/(react|react-dom|react-router|scheduler)\//,
              },
            ],
          },
        },
      },
      modulePreload: { polyfill: false },
    },
    server: { port: devPort, strictPort: true, proxy: { '/api': `http://localhost:${relayPort}` } },
  })
