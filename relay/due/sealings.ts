import { SEALING, type SealKey } from '@acolhida/core/contract'
import { sealAway, toSealNow } from '@acolhida/core/house'
import { HOUR, instant, shift } from '@acolhida/core/time'
import { CompactEncrypt } from 'jose/jwe/compact/encrypt'
import { importJWK } from 'jose/key/import'
import { fileTrouble } from '../ground/health.ts'
import { log } from '../ground/log.ts'
import type { Here } from '../house/here.ts'

/** How many things are sealed in one round: the relay has other things to do. */
const AT_ONCE = 50

/** How long it rests when it can't, in ms. */
const RESTS = HOUR

/** Seals what was answered and is needed here no more, so that only the desk can read it. */
export class Sealings {
  readonly #here: Here
  #round: Promise<void> | undefined
  #rests = instant(0)

  constructor(here: Here) {
    this.#here = here
  }

  /** Seals what is due now; a second call joins the round under way. With a key that is none, it rests for a while. */
  round(): Promise<void> {
    if (this.#here.now() < this.#rests) return Promise.resolve()
    this.#round ??= this.#go()
      .catch((error: unknown) => {
        // What hinders the file is said elsewhere.
        if (fileTrouble(error) !== undefined) throw error
        this.#rests = shift(this.#here.now(), RESTS)
        log.error(
          { err: error },
          'What was answered can’t be sealed for the desk; it is tried again in an hour.',
        )
      })
      .finally(() => {
        this.#round = undefined
      })
    return this.#round
  }

  async #go(): Promise<void> {
    const { keeper } = this.#here
    for (let i = 0; i < AT_ONCE; i++) {
      const now = this.#here.now()
      const due = keeper.due(now, ({ doing }) => doing.do === 'seal')
      const key = keeper.house.pack?.seal
      const sealing = due && toSealNow(keeper.house, due.subject, now)
      if (!due || !key || !sealing) return
      const { subject } = due
      this.#here.call(sealAway, { subject, part: sealing.part, sealed: await sealed(sealing.part, key) })
    }
  }
}

/** A part sealed for a desk (JSON Web Encryption, RFC 7516). */
async function sealed(part: unknown, key: SealKey): Promise<string> {
  return new CompactEncrypt(new TextEncoder().encode(JSON.stringify(part)))
    .setProtectedHeader(SEALING)
    .encrypt(await importJWK(key, SEALING.alg))
}
