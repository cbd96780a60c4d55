import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { brotliCompressSync, gzipSync } from 'node:zlib'
import { Refused } from '@acolhida/core/request'
import express, { type Express, type Request, type Response } from 'express'

/** How a file can be sent, the smallest first. */
const ENCODINGS = [
  ['br', '.br'],
  ['gzip', '.gz'],
] as const

/** The encodings a browser takes (RFC 9110 §12.5.3): those it names and does not weigh with nothing. */
function taken(req: Request): (encoding: string) => boolean {
  const said = String(req.headers['accept-encoding'] ?? '')
    .split(',')
    .map((part) => part.trim().toLowerCase().split(';'))
  return (encoding) =>
    said.some(([name, weight]) => name === encoding && !/^\s*q=0(\.0*)?$/.test(weight ?? ''))
}

/** Sends what is public in the smallest form that the browser takes. */
function sendSmallest(req: Request, res: Response, forms: ReadonlyMap<string, Buffer>): void {
  res.vary('accept-encoding')
  const takes = taken(req)
  for (const [encoding] of ENCODINGS) {
    const form = takes(encoding) ? forms.get(encoding) : undefined
    if (!form) continue
    res.setHeader('content-encoding', encoding)
    res.end(form)
    return
  }
  res.end(forms.get('identity'))
}

/** A text in all forms. Only what holds no secret may be compressed. */
export const formsOf = (text: string): Map<string, Buffer> => {
  const plain = Buffer.from(text)
  return new Map([
    ['identity', plain],
    ['br', brotliCompressSync(plain)],
    ['gzip', gzipSync(plain)],
  ])
}

const TYPES: Record<string, string> = {
  js: 'text/javascript; charset=utf-8',
  css: 'text/css; charset=utf-8',
  svg: 'image/svg+xml',
}

/** The built files that were compressed when they were built, by their names. */
function compressed(folder: string): Map<string, { type: string; forms: Map<string, string> }> {
  const names = existsSync(folder) ? readdirSync(folder) : []
  const there = new Set(names)
  return new Map(
    names.flatMap((name) => {
      const type = TYPES[name.split('.').at(-1) ?? '']
      const forms = ENCODINGS.flatMap(([encoding, ending]) =>
        there.has(name + ending) ? [[encoding, join(folder, name + ending)] as const] : [],
      )
      return type && forms.length > 0 ? [[name, { type, forms: new Map(forms) }] as const] : []
    }),
  )
}

/**
 * Serves a built application: its files with a long life and as small as the browser takes them, and its page for every
 * other path.
 * @param first the page as it is sent for an address, where it says more than the empty one
 * @param others pages of their own, by their paths
 */
export function servePages(
  app: Express,
  folder: string,
  first: (req: Request, plain: string) => ReadonlyMap<string, Buffer> | undefined = () => undefined,
  others: Readonly<Record<string, string>> = {},
): void {
  app.all(/^\/api\//, () => {
    throw new Refused(404, 'unknown')
  })
  if (!existsSync(folder)) return
  const assets = join(folder, 'assets')
  const small = compressed(assets)
  app.get('/assets/:name', (req, res, next) => {
    const file = small.get(String(req.params.name))
    if (!file) {
      next()
      return
    }
    res.vary('accept-encoding')
    res.setHeader('content-type', file.type)
    res.setHeader('cache-control', 'public, max-age=31536000, immutable')
    const takes = taken(req)
    const form = [...file.forms].find(([encoding]) => takes(encoding))
    if (!form) {
      next()
      return
    }
    res.setHeader('content-encoding', form[0])
    res.sendFile(form[1], { immutable: true, maxAge: '1y', headers: { 'content-type': file.type } })
  })
  app.use('/assets', express.static(assets, { immutable: true, maxAge: '1y', index: false }))
  // What keeps the desk for when the relay does not answer is itself never kept.
  app.get('/sw.js', (_req, res, next) => {
    res.setHeader('cache-control', 'no-store')
    next()
  })
  app.use(express.static(folder, { index: false, maxAge: 0, cacheControl: false }))
  for (const [path, name] of Object.entries(others)) {
    const forms = formsOf(readFileSync(join(folder, name), 'utf8'))
    app.get(path, (req, res) => {
      res.setHeader('cache-control', 'no-cache')
      res.type('html')
      sendSmallest(req, res, forms)
    })
  }
  const page = readFileSync(join(folder, 'index.html'), 'utf8')
  const plain = formsOf(page)
  app.get(/.*/, (req, res) => {
    if (/\.[a-z0-9]+$/i.test(req.path)) {
      res.status(404).type('text').send('There is nothing here.')
      return
    }
    res.setHeader('cache-control', 'no-cache')
    res.type('html')
    sendSmallest(req, res, first(req, page) ?? plain)
  })
}
