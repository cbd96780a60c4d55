import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { command } from '@acolhida/core/house'
import { SECOND } from '@acolhida/core/time'
import { simpleParser } from 'mailparser'
import nodemailer from 'nodemailer'
import { SMTPServer } from 'smtp-server'
import { MovableClock } from '../relay/ground/clock.ts'
import { Relay } from '../relay/relay.ts'
import { spend, zero } from './side-by-side.ts'
import { NOW, practiceOfYears } from './years.ts'

/** How many mails go in one round. */
const MANY = 100
const ROUNDS = 15

/** A mail host that takes everything and looks at nothing; what it took last is kept to be sent again. */
async function sink() {
  let count = 0
  let last = Buffer.alloc(0)
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    disableReverseLookup: true,
    onData: (stream, _, done) => {
      const chunks: Buffer[] = []
      stream.on('data', (chunk: Buffer) => chunks.push(chunk))
      stream.on('end', () => {
        count++
        last = Buffer.concat(chunks)
        done()
      })
    },
  })
  server.on('error', () => undefined)
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  const address = server.server.address()
  if (typeof address !== 'object' || !address) throw new Error('It listens nowhere.')
  return {
    smtp: `smtp://127.0.0.1:${address.port}`,
    taken: () => count,
    last: () => last,
    stop: () => new Promise<void>((resolve) => server.close(() => resolve())),
  }
}

/**
 * Mails that are due, from the agenda through rendering, the record and the file to the mail host; beside them the same
 * mails handed to nodemailer alone, pooled alike, to the same host. By CPU time of the whole process: the host's too.
 */
export async function benchDelivery(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'acolhida-delivery-'))
  const host = await sink()
  const clock = new MovableClock(0, undefined, () => NOW)
  const settings = {
    file: join(folder, 'relay.sqlite'),
    smtp: host.smtp,
    ...{ doorPages: '/none', deskPages: '/none', requestsPerMinute: 1_000_000, steady: false as const },
    demo: () => practiceOfYears(400, 100),
  }
  const relay = new Relay(settings, clock)
  const bare = nodemailer.createTransport({ url: host.smtp, pool: true, maxConnections: 2 })
  const to = [...relay.here.keeper.house.openBookings()]
    .filter(({ status, start }) => status === 'booked' && start > NOW)
    .slice(0, MANY)
  if (to.length < MANY) throw new Error(`There are ${to.length} to write to.`)
  const turn = (): Promise<unknown> => relay.rounds.turn()
  await turn()
  const write = (round: number): void => {
    for (const { id } of to)
      relay.here.call(command, {
        booking: id,
        command: { do: 'write', channel: 'email', subject: `Round ${round}`, text: 'Please bring the page.' },
      })
    clock.forward(9 * SECOND)
  }
  const ratios: number[] = []
  for (let round = 0; round < ROUNDS; round++) {
    write(round)
    const [ours, theirs] = [zero(), zero()]
    const before = host.taken()
    await spend(ours, turn)
    const sent = host.taken() - before
    if (sent !== MANY) throw new Error(`${sent} of ${MANY} have gone.`)
    const { subject, text, html, from, messageId, references } = await simpleParser(host.last())
    await spend(theirs, () =>
      Promise.all(
        to.map(({ asked }) =>
          bare.sendMail({
            ...{ from: from?.text, to: asked.person.email, subject, text, html: html || '' },
            ...{ messageId, references, headers: { 'Auto-Submitted': 'auto-generated' } },
          }),
        ),
      ),
    )
    // The first is a warm-up.
    if (round > 0) ratios.push(theirs.cpu / ours.cpu)
    if (round === ROUNDS - 1)
      console.log(
        `  delivery: ${Math.round(ours.cpu / MANY)} µs a mail, ${Math.round(theirs.cpu / MANY)} µs by nodemailer alone`,
      )
  }
  ratios.sort((a, b) => a - b)
  const [low, median, high] = [0, ratios.length >> 1, ratios.length - 1].map((i) => ratios[i]!.toFixed(2))
  console.log(`  delivery: ${median}× as many as nodemailer alone (${low} to ${high}; goal: at least 0.5)`)
  bare.close()
  await relay.stop()
  await host.stop()
  rmSync(folder, { recursive: true, force: true })
}
