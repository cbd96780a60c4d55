import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { Refused } from '@acolhida/core/request'
import express, { type Express } from 'express'

/** Serves a built application: its files with a long life, and its page for every other path. */
export function servePages(app: Express, folder: string): void {
  app.all(/^\/api\//, () => {
    throw new Refused(404, 'unknown')
  })
  if (!existsSync(folder)) return
  app.use('/assets', express.static(join(folder, 'assets'), { immutable: true, maxAge: '1y', index: false }))
  app.use(express.static(folder, { index: false, maxAge: 0 }))
  app.get(/.*/, (req, res) => {
    if (/\.[a-z0-9]+$/i.test(req.path)) {
      res.status(404).type('text').send('There is nothing here.')
      return
    }
    res.setHeader('cache-control', 'no-cache')
    res.sendFile(join(folder, 'index.html'))
  })
}
