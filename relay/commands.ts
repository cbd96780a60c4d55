import { chmodSync, existsSync, lstatSync, realpathSync, renameSync, rmSync } from 'node:fs'
import { basename, dirname, join, resolve, sep } from 'node:path'
import Database from 'libsql'
import { newPairingCode } from './desk/pairing.ts'
import { BadSetting, type Environment, inEarnest, isLoopback } from './ground/settings.ts'
import { mailHost } from './mail/host.ts'
import { mailTroubleSaid } from './mail/problem.ts'
import { openDatabase } from './store/database.ts'
import { Secrets } from './store/keys.ts'
import { foundIn, WrongFile } from './store/opening.ts'
import { SqliteStore } from './store/sqlite-store.ts'

/** Makes sure that there is a relay's file to work with. @throws WrongFile */
function mustBeThere(file: string): void {
  const found = foundIn(file)
  if (found === 'missing' || found === 'empty')
    throw new WrongFile(`${file} is ${found}; there is nothing in it.`)
}

/** Makes a code that pairs a desk, and says it: also while the relay runs on the file. */
export function pairHere(file: string): void {
  mustBeThere(file)
  // A code is no secret of the key's: none is made where it is missing.
  const store = new SqliteStore(openDatabase(file), new Secrets())
  console.log(newPairingCode(store))
  store.db.close()
}

/**
 * Copies the file as it stands, while the relay runs on it: whole, in one moment, under a new name and to be read by its
 * owner alone. The key beside it is left out, so that the copy opens nothing by itself.
 * @param served folders whose files anybody can fetch
 * @throws WrongFile
 */
export function backup(file: string, to: string, served: readonly string[]): void {
  mustBeThere(file)
  const target = resolve(to)
  const folder = dirname(target)
  if (!existsSync(folder)) throw new WrongFile(`${folder} is not there; make the folder first.`)
  const real = join(realpathSync(folder), basename(target))
  if (served.some((other) => existsSync(other) && `${real}${sep}`.startsWith(`${realpathSync(other)}${sep}`)))
    throw new WrongFile(`${target} is in a folder that is served to anybody; name another place.`)
  if (lstatSync(real, { throwIfNoEntry: false }))
    throw new WrongFile(`${target} is there already, and nothing is overwritten; name another file.`)
  process.umask(0o077)
  const half = `${real}.${process.pid}.half`
  const db = new Database(file)
  try {
    db.prepare('VACUUM INTO ?').run(half)
    chmodSync(half, 0o600)
    renameSync(half, real)
  } finally {
    db.close()
    rmSync(half, { force: true })
  }
  console.log(
    `${target} holds the relay’s file as it stands. The key beside it (${file}.key) is not in it: keep that in another place, links and calendars are read with it.`,
  )
}

/**
 * Looks at everything that must be right before clients come, and says in sentences what is and what is not.
 * @returns 0 where all is well, 2 where something is not
 */
export async function check(settings: Environment, file: string): Promise<number> {
  const wrong: string[] = []
  const right: string[] = []
  try {
    inEarnest(settings)
    right.push('The settings can be meant.')
  } catch (error) {
    if (!(error instanceof BadSetting)) throw error
    wrong.push(...error.message.split('\n'))
  }
  const found = foundIn(file)
  if (found === 'practice') right.push(`${file} holds a practice.`)
  else if (found === 'demo') wrong.push(`${file} holds the demo; name another file with ACOLHIDA_FILE.`)
  else wrong.push(`${file} is ${found}; a first start makes it with --new.`)
  if (found === 'practice' && !existsSync(`${file}.key`))
    wrong.push(
      `${file}.key is missing: no link that was mailed leads anywhere without it. Bring it back from where you keep it.`,
    )
  if (settings.smtp !== undefined) {
    const transport = mailHost(settings.smtp)
    await transport.verify().then(
      () => right.push('The mail host takes this relay’s mail.'),
      (error: Error) => wrong.push(mailTroubleSaid(error)),
    )
    transport.close()
  }
  for (const [name, url] of [
    ['door', settings.doorUrl],
    ['desk', settings.deskUrl],
  ] as const) {
    if (url === undefined) continue
    const said = await reached(url)
    if (said === undefined) right.push(`The ${name} is reached at ${url}.`)
    else wrong.push(`The ${name} is not reached at ${url}: ${said}`)
    if (name === 'desk' && url.startsWith('http:') && !isLoopback(new URL(url).hostname))
      wrong.push(
        'The desk is reached without TLS: a browser makes no keys there, so private questions can’t be published.',
      )
  }
  for (const sentence of right) console.log(`  well   ${sentence}`)
  for (const sentence of wrong) console.log(`  wrong  ${sentence}`)
  return wrong.length > 0 ? 2 : 0
}

/** Whether this relay answers at an address: what hinders it, in words. */
async function reached(url: string): Promise<string | undefined> {
  try {
    const answer = await fetch(`${url}/health`, { signal: AbortSignal.timeout(10_000), redirect: 'manual' })
    return answer.headers.has('x-relay-now')
      ? undefined
      : 'something else answers there. Look at the proxy and the name in the DNS.'
  } catch (error) {
    const { cause, message } = error as Error & { cause?: Error }
    return `${cause?.message ?? message}. The relay must be running, and the name lead to it.`
  }
}
