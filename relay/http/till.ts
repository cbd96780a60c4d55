import { door, type LinkView, type YoursView } from '@acolhida/core/contract'
import { schemas } from '@acolhida/core/contract/schemas'
import {
  askTill,
  askTillForPath,
  bookingBehind,
  courseBehind,
  coursesBehind,
  linkView,
  theirsBehind,
  tillSays,
  yoursView,
} from '@acolhida/core/house'
import { Refused } from '@acolhida/core/request'
import { BadData } from '@acolhida/core/schemas'
import { sha256Hex } from '@acolhida/core/terms'
import { type Express, type Request, type Response, raw } from 'express'
import type { Here } from '../house/here.ts'
import { NotSigned, TillAway } from '../till/till.ts'
import type { Mount } from './mount.ts'
import { limited } from './security.ts'
import type { Serving } from './serving.ts'
import { theirs } from './spoken.ts'

/** The largest message of the till's, in bytes. */
const LARGEST = 10_000
/** Messages a minute, of which one may be false: the till tells again what was not taken in. */
const RATE = 600

/** Paying by card through a private link, and what the till tells. */
export function mountTill(
  app: Express,
  mount: Mount,
  serving: Serving,
  {
    linkAt,
    otherIn,
  }: { linkAt(hash: string, res: Response): Here; otherIn(req: Request): string | undefined },
): void {
  const { here: own, till, tillRounds } = serving
  /** No money moves in a trial of the door. */
  const behind = (req: Request, res: Response) => {
    const hash = sha256Hex(String(req.params.secret))
    if (!tillRounds || linkAt(hash, res) !== own) throw new Refused(409, 'no-till')
    const other = otherIn(req)
    return { hash, tillRounds, ...(other === undefined ? {} : { other }) }
  }
  /** Whoever takes the card learns nothing of the private link: the client's own browser knows the way back. */
  const wayBack = (): string => serving.address(`/${own.keeper.house.pack!.practice.profile.slug}/my`)
  mount.take(door.pay, schemas.pay, async ({ body, req, res }) => {
    const { tillRounds: rounds, ...which } = behind(req, res)
    // What was begun before may have been paid, or be over: nothing is begun beside it.
    await rounds.lookAt(own.look((house) => bookingBehind(house, which.hash, which.other).booking.id))
    const wanted = own.call(askTill, { ...which, ...body })
    return rounds.page(wanted, wayBack())
  })
  mount.take(door.payPath, schemas.payPath, async ({ body, req, res }) => {
    const { tillRounds: rounds, hash } = behind(req, res)
    await rounds.lookAt(own.look((house) => courseBehind(house, hash, body.course).id))
    return rounds.page(own.call(askTillForPath, { ...body, hash }), wayBack())
  })
  mount.take(door.yoursCameBack, schemas.yoursCameBack, async ({ req, res }): Promise<YoursView> => {
    const { tillRounds: rounds, hash } = behind(req, res)
    for (const { id } of own.look((house) => coursesBehind(house, theirsBehind(house, hash))))
      await rounds.lookAt(id)
    serving.soon()
    return theirs(req, own).look((house, now) => yoursView(house, theirsBehind(house, hash), now))
  })
  mount.take(door.cameBack, schemas.cameBack, async ({ req, res }): Promise<LinkView> => {
    const { tillRounds: rounds, hash, other } = behind(req, res)
    await rounds.lookAt(own.look((house) => bookingBehind(house, hash, other).booking.id))
    serving.soon()
    return theirs(req, own).look((house, now) => linkView(house, bookingBehind(house, hash, other), now))
  })
  app.post(
    '/api/till',
    limited(RATE),
    raw({ type: () => true, limit: LARGEST }),
    async (req: Request, res: Response) => {
      if (!till) throw new Refused(404, 'no-till')
      const body = Buffer.isBuffer(req.body) ? req.body : Buffer.alloc(0)
      const { method, headers } = req
      try {
        own.call(tillSays, await till.read({ method, path: req.path, headers }, body, own.now()))
      } catch (error) {
        if (error instanceof NotSigned) throw new Refused(401, 'till.unsigned')
        if (error instanceof TillAway || error instanceof BadData) throw new Refused(409, 'till.differs')
        throw error
      }
      serving.soon()
      res.status(200).json({})
    },
  )
}
