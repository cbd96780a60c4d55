import { away } from '@acolhida/core/contract'
import { schemas } from '@acolhida/core/contract/schemas'
import { dayView, onPhone, openingsToMove, requestBehind, throughWord, wordView } from '@acolhida/core/house'
import { Refused } from '@acolhida/core/request'
import { sha256Hex } from '@acolhida/core/terms'
import type { Express, Request, RequestHandler } from 'express'
import { newSecret } from '../store/keys.ts'
import type { SqliteStore } from '../store/sqlite-store.ts'
import { Mount } from './mount.ts'
import type { Serving } from './serving.ts'

/** Where the hash of the paired phone's key is kept. */
const PHONE = 'phone-key'

/** Pairs a phone: the one before ends. @returns its key, of which only the hash is kept */
export function newPhoneKey(store: SqliteStore): string {
  const key = newSecret()
  store.set(PHONE, sha256Hex(key))
  return key
}

/** Ends the paired phone. */
export const endPhone = (store: SqliteStore): void => store.unset(PHONE)

/** What the practitioner does away from the desk: by a word link, whose secret is its key, and on the paired phone. */
export function mountAway(app: Express, serving: Serving): void {
  const { here, store } = serving
  const withPhone: RequestHandler = (req, _res, next) => {
    const match = /^Bearer ([A-Za-z0-9_-]{20,100})$/.exec(req.get('authorization') ?? '')
    if (!match || store.setting(PHONE) !== sha256Hex(match[1]!)) throw new Refused(401, 'no-phone-key')
    next()
  }
  const mount = new Mount(app, { day: withPhone }, serving.requestsPerMinute)
  const hashIn = (req: Request): string => sha256Hex(String(req.params.secret))
  const word = (hash: string) => here.look((house, now) => wordView(house, requestBehind(house, hash), now))

  mount.get(away.word, ({ req }) => word(hashIn(req)))
  mount.take(away.decideWord, schemas.decideWord, ({ body, req, key }) => {
    const hash = hashIn(req)
    const { seen: _, ...same } = body
    here.call(throughWord, { hash, ...body }, { scope: 'word', key, body: { hash, ...same } })
    serving.soon()
    return word(hash)
  })
  mount.take(away.wordTimes, schemas.wordTimes, ({ body, req }) =>
    here.look((house, now) => openingsToMove(house, requestBehind(house, hashIn(req)), body, now)),
  )
  mount.get(away.day, () => here.look(dayView))
  mount.take(away.decideDay, schemas.decideDay, ({ body, key }) => {
    const { seen: _, ...same } = body
    here.call(onPhone, body, { scope: 'phone', key, body: same })
    serving.soon()
    return here.look(dayView)
  })
}
