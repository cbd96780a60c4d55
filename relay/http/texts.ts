import { textSaid, throughLink } from '@acolhida/core/house'
import { Refused } from '@acolhida/core/request'
import { BadData } from '@acolhida/core/schemas'
import { sha256Hex } from '@acolhida/core/terms'
import express, { type Express, type Request, type Response, raw } from 'express'
import { NotTheGateway } from '../texts/gateway.ts'
import { limited } from './security.ts'
import type { Serving } from './serving.ts'

/** The largest message of the gateway's, in bytes, and how many come a minute. */
const LARGEST = 10_000
const RATE = 600

/** What clients answer to texts, as the gateway tells it. */
export function mountTexts(app: Express, serving: Serving): void {
  const { here, gateway } = serving
  app.post(
    '/api/texts',
    limited(RATE),
    raw({ type: () => true, limit: LARGEST }),
    async (req: Request, res: Response) => {
      if (!gateway) throw new Refused(404, 'no-gateway')
      const body = Buffer.isBuffer(req.body) ? req.body : Buffer.alloc(0)
      const { method, headers } = req
      try {
        here.call(textSaid, await gateway.read({ method, path: req.path, headers }, body, here.now()))
      } catch (error) {
        if (error instanceof NotTheGateway) throw new Refused(401, 'gateway.unsigned')
        if (error instanceof BadData) throw new Refused(409, 'gateway.differs')
        throw error
      }
      serving.soon()
      res.status(200).json({})
    },
  )
}

/**
 * Unsubscribing with one press in a mail program (RFC 8058): a POST that carries `List-Unsubscribe=One-Click`, without
 * cookies, and is asked nothing back. Looking at the address never unsubscribes; it leads to the client's page.
 */
export function mountUnsubscribe(app: Express, serving: Serving): void {
  const { here } = serving
  const path = '/api/link/:secret/unsubscribe'
  const form = express.urlencoded({ extended: false, limit: 1_000, type: () => true })
  app.post(path, form, (req: Request, res: Response) => {
    if ((req.body as Record<string, unknown> | undefined)?.['List-Unsubscribe'] !== 'One-Click')
      throw new Refused(400, 'malformed')
    const hash = sha256Hex(String(req.params.secret))
    here.call(throughLink, { hash, command: { do: 'unwant', what: 'follow-ups', on: true } })
    serving.soon()
    res.status(200).type('text').send('You are sent no more of these.')
  })
  app.get(path, (req: Request, res: Response) => {
    const slug = here.keeper.house.practice?.profile.slug ?? ''
    res.redirect(302, `/${slug}/my/${encodeURIComponent(String(req.params.secret))}?to=unwant`)
  })
}
