import { mkdirSync, rmSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { demoBackup } from '@acolhida/demo'
import { MovableClock, systemClock } from './clock.ts'
import { furnish } from './demo.ts'
import { newPairingCode } from './desk/desk.ts'
import { Relay } from './relay.ts'
import { StandinCalendar } from './standins/calendar.ts'
import { startLetterbox } from './standins/letterbox.ts'
import { Mailbox } from './standins/mailbox.ts'

/**
 * Starts the relay. Settings come from the environment:
 *
 * - ACOLHIDA_FILE: the relay's file (`.acolhida/relay.sqlite`)
 * - ACOLHIDA_SMTP: smtp:// address of a mail host; without it the stand-ins and the demo run
 * - ACOLHIDA_DOOR_URL: how clients reach the door
 * - ACOLHIDA_MEMORY_DAYS: for how many days finished bookings are remembered (400)
 * - ACOLHIDA_PRIVATE_CALENDARS=1: calendars in private networks may be read
 * - ACOLHIDA_RATE: requests a minute from one address (240)
 * - ACOLHIDA_HOST, ACOLHIDA_DOOR_PORT, ACOLHIDA_DESK_PORT, ACOLHIDA_LETTERBOX_PORT
 */
async function main(): Promise<void> {
  const env = process.env
  const root = resolve(dirname(fileURLToPath(import.meta.url)), '..')
  const standins = !env.ACOLHIDA_SMTP
  const file = env.ACOLHIDA_FILE ?? join(root, '.acolhida', standins ? 'demo.sqlite' : 'relay.sqlite')
  mkdirSync(dirname(file), { recursive: true })
  if (process.argv.includes('--fresh'))
    for (const end of ['', '-wal', '-shm']) rmSync(file + end, { force: true })

  const mailbox = new Mailbox()
  const smtp = env.ACOLHIDA_SMTP ?? (await mailbox.start())
  let clock = standins ? new MovableClock() : systemClock
  const relay: Relay = new Relay(
    {
      file,
      smtp,
      ...(env.ACOLHIDA_DOOR_URL ? { doorUrl: env.ACOLHIDA_DOOR_URL.replace(/\/$/, '') } : {}),
      doorPages: join(root, 'web', 'dist', 'door'),
      deskPages: join(root, 'web', 'dist', 'desk'),
      requestsPerMinute: Number(env.ACOLHIDA_RATE ?? 240),
      memoryDays: Number(env.ACOLHIDA_MEMORY_DAYS ?? 400),
      privateCalendars: standins || env.ACOLHIDA_PRIVATE_CALENDARS === '1',
      ...(standins ? { demo: () => demoBackup(clock.now()) } : {}),
    },
    {
      now: () => clock.now(),
      get moved() {
        return clock.moved
      },
    },
  )
  if (standins) {
    // A clock that was moved forward stays so: going back would break what has happened since.
    const ahead = Number(relay.store.setting('clock-ahead') ?? 0)
    clock = new MovableClock(ahead, (now) =>
      relay.store.act(() => relay.store.set('clock-ahead', String(now))),
    )
    if (!relay.store.package) furnish(relay.store, demoBackup(clock.now()), clock.now())
  }
  const { door, desk } = await relay.start(
    { door: Number(env.ACOLHIDA_DOOR_PORT ?? 4180), desk: Number(env.ACOLHIDA_DESK_PORT ?? 4181) },
    env.ACOLHIDA_HOST ?? '127.0.0.1',
  )
  const code = newPairingCode(relay.store)
  const slug = relay.store.package?.practice.profile.slug ?? ''
  console.log(`\n  Door       ${door}/${slug}`)
  console.log(`  Desk       ${desk}/#pair=${code}`)
  if (standins) {
    const letterbox = await startLetterbox(
      mailbox,
      clock as MovableClock,
      new StandinCalendar(clock.now()),
      () => {
        relay.deskStream.tell('clock')
        relay.rounds.turn()
      },
      Number(env.ACOLHIDA_LETTERBOX_PORT ?? 4182),
    )
    console.log(`  Letterbox  ${letterbox.url}/`)
  }
  console.log(`\n  The desk's address pairs one browser, once. Ctrl-C ends it.\n`)
  process.send?.({ ready: true, door, desk, code })

  const end = (): void => {
    relay.stop().then(() => process.exit(0))
  }
  process.on('SIGINT', end)
  process.on('SIGTERM', end)
}

main().catch((error) => {
  console.error(error)
  process.exit(1)
})
