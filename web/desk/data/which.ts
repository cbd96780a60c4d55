import Dexie, { type EntityTable } from 'dexie'

/** The two names the desk's database goes by, in turns: a restore fills the one that is not in use. */
const NAMES = ['acolhida-desk', 'acolhida-desk-second'] as const
export type DeskName = (typeof NAMES)[number]

interface Which {
  id: 'current'
  name: DeskName
}

/** Says which of the two databases is the desk. It is itself a database, so that saying it is safe on the disk. */
class WhichDatabase extends Dexie {
  declare which: EntityTable<Which, 'id'>
  constructor() {
    super('acolhida-desk-which', { chromeTransactionDurability: 'strict' })
    this.version(1).stores({ which: 'id' })
  }
}

async function within<T>(work: (which: WhichDatabase) => Promise<T>): Promise<T> {
  const which = new WhichDatabase()
  try {
    return await work(which)
  } finally {
    which.close()
  }
}

/** The name of the database in use. */
export const currentName = (): Promise<DeskName> =>
  within(async ({ which }) => (await which.get('current'))?.name ?? NAMES[0])

/** The name of the one that is not. */
export const otherName = async (): Promise<DeskName> => {
  const current = await currentName()
  return NAMES.find((name) => name !== current)!
}

/** From now on another one is the desk. What is open stays on the old one until its page is loaded anew. */
export const makeCurrent = (name: DeskName): Promise<void> =>
  within(async ({ which }) => {
    await which.put({ id: 'current', name })
  })
