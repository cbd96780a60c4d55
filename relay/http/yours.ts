import { createHash } from 'node:crypto'
import { door } from '@acolhida/core/contract'
import { queries, schemas } from '@acolhida/core/contract/schemas'
import {
  bookPath,
  doStation,
  keepHalf,
  letterDocument,
  openCourses,
  planPath,
  takeCourseFile,
  theirsBehind,
  yoursView,
} from '@acolhida/core/house'
import { documentBytes } from '@acolhida/core/practice'
import { LARGEST_FILE } from '@acolhida/core/questions'
import { sha256Hex } from '@acolhida/core/terms'
import { type Express, type Request, type Response, raw } from 'express'
import type { Here } from '../house/here.ts'
import type { Mount } from './mount.ts'
import { bodyOf } from './security.ts'
import type { Serving } from './serving.ts'
import { theirs } from './spoken.ts'

/** Everything that is somebody's, behind a private link of theirs: what there is to do, and what becomes of it. */
export function mountYours(
  app: Express,
  mount: Mount,
  serving: Serving,
  linkAt: (hash: string, res: Response) => Here,
): void {
  const { here: own, quotas } = serving
  const hashIn = (req: Request): string => sha256Hex(String(req.params.secret))
  const view = (req: Request, res: Response) => {
    const hash = hashIn(req)
    return theirs(req, linkAt(hash, res)).look((house, now) =>
      yoursView(house, theirsBehind(house, hash), now),
    )
  }
  mount.get(door.yours, ({ req, res }) => view(req, res))
  mount.take(door.opens, schemas.opens, ({ req, res, key }) => {
    const hash = hashIn(req)
    theirs(req, linkAt(hash, res)).call(openCourses, { hash }, { scope: 'yours open', key, body: { hash } })
    return view(req, res)
  })
  mount.take(door.doStation, schemas.doStation, ({ body, req, res, key }) => {
    const hash = hashIn(req)
    const once = { scope: `yours ${body.does.do}`, key, body: { hash, ...body } }
    theirs(req, linkAt(hash, res)).call(doStation, { ...body, hash }, once)
    serving.soon()
    return view(req, res)
  })
  mount.take(door.planPath, schemas.planPath, async ({ body, req, res }) => {
    const hash = hashIn(req)
    const here = linkAt(hash, res)
    return theirs(req, here).call(planPath, { ...body, hash })
  })
  mount.take(door.bookPath, schemas.bookPath, async ({ body, req, res, key }) => {
    const hash = hashIn(req)
    const here = linkAt(hash, res)
    // Another calendar may have taken a time meanwhile.
    if (here === own) await serving.calendars.lookAgain()
    const once = { scope: 'yours book', key, body: { hash, ...body } }
    theirs(req, here).call(bookPath, { ...body, hash }, once)
    serving.soon()
    return view(req, res)
  })
  mount.take(door.half, schemas.half, ({ body, req, res, key }) => {
    const hash = hashIn(req)
    return theirs(req, linkAt(hash, res)).call(
      keepHalf,
      { ...body, hash },
      { scope: 'yours half', key, body: { hash, ...body } },
    )
  })
  app.get('/api/yours/:secret/documents/:course/:station', (req, res) => {
    const { course, station } = req.params
    const document = theirs(req, linkAt(hashIn(req), res)).look((house) =>
      letterDocument(house, hashIn(req), { course, station }),
    )
    // To be saved, and opened by what the reader trusts with it.
    res
      .type('application/pdf')
      .attachment(`${document.name}.pdf`)
      .set('Cache-Control', 'no-store')
      .send(Buffer.from(documentBytes(document), 'base64'))
  })
  app.post(
    '/api/yours/:secret/files',
    raw({ type: 'application/octet-stream', limit: LARGEST_FILE }),
    (req, res) => {
      const about = bodyOf(queries.courseFile, req.query)
      const hash = hashIn(req)
      const bytes = Buffer.isBuffer(req.body) ? req.body : Buffer.alloc(0)
      const here = linkAt(hash, res)
      if (here === own) quotas.uploading(req, bytes.length)
      const sha256 = createHash('sha256').update(bytes).digest('hex')
      const given = { ...about, hash, bytes, sha256 }
      res.status(201).json(theirs(req, here).call(takeCourseFile, given, undefined, bytes))
    },
  )
}
