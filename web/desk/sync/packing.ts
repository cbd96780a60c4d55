import type { Instant } from '@acolhida/core/time'
import { db, onChangeOf } from '../data/db.ts'
import { MADE_OF, type Packed, pack } from './package.ts'
import type { PackTold, PackWish } from './package.worker.ts'

/** Whether something the package is made of has changed since it was last made, here or in another window. */
let stale = true
let last: Packed | undefined

onChangeOf(MADE_OF, () => {
  stale = true
})

let worker: Worker | undefined

/** In a worker where there are any; one is kept, since it is asked often. */
function packed(wish: PackWish): Promise<Packed | undefined> {
  if (typeof Worker === 'undefined') return pack(db, wish.published, wish.now)
  worker ??= new Worker(new URL('./package.worker.ts', import.meta.url), { type: 'module' })
  const at = worker
  return new Promise((resolve, reject) => {
    at.onmessage = ({ data }: MessageEvent<PackTold>) =>
      'packed' in data ? resolve(data.packed) : reject(new Error(data.problem))
    at.onerror = () => {
      worker = undefined
      reject(new Error('What your door shows could not be put together here.'))
    }
    at.postMessage(wish)
  })
}

/**
 * What the door is to be told at `now`, and its fingerprint. Made anew only where something about it can have changed.
 * One call at a time.
 */
export async function packageAt(published: string, now: Instant): Promise<Packed | undefined> {
  const still = last && !stale && (last.until === undefined || now < last.until)
  if (last && still && (last.print === published || last.next)) {
    return last.print === published ? { ...last, next: undefined } : last
  }
  stale = false
  try {
    last = await packed({ published, now })
  } catch (error) {
    stale = true
    throw error
  }
  return last
}
