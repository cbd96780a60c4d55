import { randomBytes } from 'node:crypto'
import { mkdirSync, rmSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import { NewerRecord } from '@acolhida/core/booking'
import type { Instant } from '@acolhida/core/time'
import { demoMonths } from '@acolhida/demo/months'
import { backup, check, pairHere } from './commands.ts'
import { newPairingCode } from './desk/pairing.ts'
import { type Clock, MovableClock, systemClock } from './ground/clock.ts'
import { BadSetting, type Environment, inEarnest, isLoopback, readSettings } from './ground/settings.ts'
import { PortTaken, Relay } from './relay.ts'
import { StandinCalendar } from './standins/calendar.ts'
import { startLetterbox } from './standins/letterbox.ts'
import { Mailbox } from './standins/mailbox.ts'
import { StandinTexts } from './standins/texts.ts'
import { StandinTill } from './standins/till.ts'
import { BrokenFile, NewerFile } from './store/database.ts'
import { WrongKey } from './store/keys.ts'
import { FileTaken } from './store/lock.ts'
import { foundIn, isDemoFile, WrongFile } from './store/opening.ts'

const root = resolve(dirname(fileURLToPath(import.meta.url)), '..')

const WAYS = `What the relay can be asked for:
  npm run --silent relay                  starts it
  npm run --silent relay -- --new         starts it with a file that is not there yet
  npm run --silent relay -- pair          makes a code that pairs a desk, for an hour
  npm run --silent relay -- backup FILE   copies its file as it stands, while it runs
  npm run --silent relay -- check         looks at settings, file, mail and addresses`

/** What was typed behind the command. @throws BadSetting naming what is none */
function typed(): { flags: Record<'demo' | 'fresh' | 'dev' | 'new', boolean>; words: string[] } {
  try {
    const boolean = { type: 'boolean', default: false } as const
    const options = { demo: boolean, fresh: boolean, dev: boolean, new: boolean }
    const { values, positionals } = parseArgs({ options, allowPositionals: true })
    return { flags: values, words: positionals }
  } catch (error) {
    throw new BadSetting([`${(error as Error).message}.`, WAYS])
  }
}

async function main(): Promise<void> {
  const { flags, words } = typed()
  const settings = readSettings(process.env)
  const [command, ...rest] = words
  const file = settings.file ?? join(root, '.acolhida', flags.demo ? 'demo.sqlite' : 'relay.sqlite')
  if (command === undefined) return start(settings, file, flags)
  if (command === 'pair' && rest.length === 0) return pairHere(file)
  if (command === 'backup' && rest.length === 1) return backup(file, rest[0]!, [join(root, 'web', 'dist')])
  if (command === 'check' && rest.length === 0) {
    process.exitCode = await check(settings, file)
    return
  }
  throw new BadSetting([`“${words.join(' ')}” is nothing that the relay can be asked for.`, WAYS])
}

/** Starts the relay. Settings come from the environment: see `settings.ts` and `docs/relay.md`. */
async function start(
  settings: Environment,
  file: string,
  flags: Record<'demo' | 'fresh' | 'dev' | 'new', boolean>,
): Promise<void> {
  if (flags.demo && settings.smtp !== undefined)
    throw new BadSetting([
      'ACOLHIDA_SMTP is set, and the demo sends no mail. Unset it, or start the relay in earnest: npm run --silent relay.',
    ])
  if (flags.demo && flags.fresh) {
    // Only what is the demo's own is begun anew.
    if (foundIn(file) !== 'missing') isDemoFile(file, { demo: true, fresh: false })
    for (const end of ['', '-wal', '-shm', '.key']) rmSync(file + end, { force: true })
  }
  const standins = isDemoFile(file, { demo: flags.demo, fresh: flags.new })
  if (standins && settings.smtp !== undefined)
    throw new BadSetting([
      `${file} holds the demo, which sends no mail. Name another file with ACOLHIDA_FILE.`,
    ])
  if (standins && !isLoopback(settings.host))
    throw new BadSetting([
      `ACOLHIDA_HOST is ${settings.host}, and the demo is never open to others: it runs on this machine alone.`,
    ])
  if (!standins) inEarnest(settings)
  // What the relay writes is nobody else's to read.
  process.umask(0o077)
  mkdirSync(dirname(file), { recursive: true })

  const mailbox = new Mailbox()
  const smtp = settings.smtp ?? (await mailbox.start())
  const { requestsPerMinute, memoryDays, privateCalendars } = settings
  // While pages are being edited, they are opened where Vite serves them (`npm run dev`).
  const edited = flags.dev ? { door: 'http://localhost:4190', desk: 'http://localhost:4191' } : undefined
  const doorUrl = settings.doorUrl ?? edited?.door
  const deskUrl = settings.deskUrl ?? edited?.desk
  // The stand-ins' clock can be moved forward; how far, the file knows, so it is set once that is open.
  let onMove = (_ahead: number): void => {}
  const movable = standins ? new MovableClock(0, (ahead) => onMove(ahead)) : undefined
  const clock: Clock = movable ?? systemClock
  const secret = randomBytes(24).toString('base64url')
  const assets = join(root, 'web', 'dist', 'desk', 'assets')
  const standinTill = standins && !settings.till ? new StandinTill(clock, secret) : undefined
  const till = standinTill
    ? { url: await standinTill.start({ port: settings.tillPort, assets }), secret, live: false }
    : settings.till
  const standinTexts = standins && !settings.texts ? new StandinTexts(clock, secret) : undefined
  const texts = standinTexts ? { url: await standinTexts.start(), secret } : settings.texts
  const relay = new Relay(
    {
      file,
      smtp,
      ...(doorUrl === undefined ? {} : { doorUrl }),
      ...(deskUrl === undefined ? {} : { deskUrl }),
      doorPages: join(root, 'web', 'dist', 'door'),
      deskPages: join(root, 'web', 'dist', 'desk'),
      requestsPerMinute,
      memoryDays,
      mail: settings.mail,
      proxies: settings.proxies,
      held: standins ? { byOne: 40, inAll: 40 } : settings.held,
      privateCalendars: standins || privateCalendars,
      ...(till ? { till } : {}),
      ...(texts ? { texts } : {}),
      ...(movable
        ? {
            demo: (at: Instant) => demoMonths(at),
            // A demo may lie for weeks, and its clock be moved: none of that is a leap.
            steady: false,
          }
        : {}),
    },
    clock,
  )
  if (movable) {
    // A clock that was moved forward stays so: going back would break what has happened since.
    movable.forward(Number(relay.store.setting('clock-ahead') ?? 0))
    onMove = (ahead) => relay.store.set('clock-ahead', String(ahead))
  }
  const { door, desk } = await relay.start(
    { door: settings.doorPort, desk: settings.deskPort },
    settings.host,
  )
  if (standinTill) standinTill.tellTo = door
  if (standinTexts) standinTexts.tellTo = door
  // A relay in earnest that has its desk makes a code when it is asked for one (`pair`).
  const code =
    standins || relay.store.setting('desk-key') === undefined ? newPairingCode(relay.store) : undefined
  const slug = relay.here.keeper.house.practice?.profile.slug ?? ''
  console.log(
    `\n  Desk       ${settings.deskUrl ?? edited?.desk ?? desk}/${code === undefined ? '' : `#pair=${code}`}\n             ${code === undefined ? 'Yours, and paired already.' : 'Yours: open it first. This address pairs one browser, once, within an hour.'}`,
  )
  console.log(
    `\n  Door       ${settings.doorUrl ?? edited?.door ?? door}/${slug}\n             What your clients see: choose a time as one of them would.`,
  )
  if (movable) {
    const letterbox = await startLetterbox(
      { mailbox, ...(standinTexts ? { texts: standinTexts } : {}) },
      movable,
      new StandinCalendar(clock.now()),
      () => {
        relay.deskStream.tell('clock')
        void relay.rounds.turn()
      },
      { port: settings.letterboxPort, assets },
    )
    console.log(
      `\n  Letterbox  ${letterbox.url}/\n             The mails and texts that would go out, and a clock to move forward. Only in this demo.`,
    )
  }
  if (standinTill)
    console.log(
      `\n  Till       ${standinTill.url}/\n             Where clients pay by card, on trial: no money moves. Only in this demo.`,
    )
  console.log('\n  Ctrl-C ends it.\n')
  process.send?.({ ready: true, door, desk, code })

  const end = (): void => {
    relay.stop().then(
      () => process.exit(0),
      (error: unknown) => {
        console.error(error)
        process.exit(1)
      },
    )
  }
  process.on('SIGINT', end)
  process.on('SIGTERM', end)
}

const foreseen = (error: unknown): error is Error =>
  error instanceof BadSetting ||
  error instanceof WrongFile ||
  error instanceof BrokenFile ||
  error instanceof WrongKey ||
  error instanceof PortTaken ||
  error instanceof FileTaken ||
  error instanceof NewerFile ||
  error instanceof NewerRecord

main().catch((error: unknown) => {
  if (foreseen(error)) {
    console.error(error.message)
    if (error instanceof PortTaken)
      console.error(
        'Another relay may still be running. End it, or set ACOLHIDA_DOOR_PORT, ACOLHIDA_DESK_PORT, ACOLHIDA_LETTERBOX_PORT or ACOLHIDA_TILL_PORT to a port that is free.',
      )
    process.exit(2)
  }
  console.error(error)
  process.exit(1)
})
