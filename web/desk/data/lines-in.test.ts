import 'fake-indexeddb/auto'
import type { RecordItem, RecordPage } from '@acolhida/core/contract'
import { writeBackup } from '@acolhida/core/formats'
import { readBackup } from '@acolhida/core/schemas'
import { HOUR, instant, parseInstant } from '@acolhida/core/time'
import { type FreedEvent, type LineEvent, lineAt } from '@acolhida/core/waiting'
import { demoBackup } from '@acolhida/demo'
import { demoMonths } from '@acolhida/demo/months'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { inLineNow } from '../waiting/use-waiting.ts'
import { takeIn } from './arrive.ts'
import { exportBackup, importBackup } from './backup.ts'
import { DeskDatabase } from './database.ts'

const now = parseInstant('2026-11-24T11:00Z')
let db: DeskDatabase
let count = 0
beforeEach(async () => {
  db = new DeskDatabase(`lines-${++count}`)
  await importBackup(db, demoBackup(now))
})
afterEach(() => db.delete())

const page = (items: RecordItem[]): RecordPage => ({
  ...{ items, last: items.at(-1)?.n ?? 0, first: 1, now },
  ...{ before: '', print: '' },
})
const joined: LineEvent = {
  ...{ type: 'joined', at: now, service: 'voice-assessment', place: 'studio', minutes: 75, price: 9_500 },
  person: { name: 'Nadia Kern', email: 'Nadia@Example.org', zone: 'Europe/Lisbon' },
  ...{ answers: {}, attempts: [], agreements: [], windows: [] },
}
const freed = (n: number): FreedEvent => ({
  ...{ type: 'freed', at: now, from: now, to: instant(now + HOUR), cause: 'cancelled', depth: 0 },
  service: `s${n}`,
})

describe('what the relay tells of those who wait', () => {
  it('is taken in page by page, also a hundred times held out while the desk was away', async () => {
    const events: LineEvent[] = [joined]
    for (let i = 0; i < 100; i++) {
      const at = instant(now + i * HOUR)
      const of = { at, freed: `f${i}` }
      const until = instant(at + HOUR / 2)
      events.push({
        type: 'held-out',
        ...of,
        start: instant(at + 90 * HOUR),
        minutes: 75,
        price: 9_500,
        until,
      })
      if (i < 99) events.push({ type: 'let-go', ...of, at: instant(until + 1) })
    }
    const items = events.flatMap((body, i): RecordItem[] => [
      { n: 2 * i + 1, at: body.at, kind: 'waiting', subject: 'line', seq: i + 1, body },
      ...(body.type === 'held-out'
        ? [
            {
              ...{ n: 2 * i + 2, at: body.at, subject: body.freed, seq: 1 },
              kind: 'freed' as const,
              body: freed(i),
            },
          ]
        : []),
    ])
    for (let i = 0; i < items.length; i += 40) await takeIn(db, page(items.slice(i, i + 40)))
    const [row] = await db.lines.toArray()
    expect(row?.events).toEqual(events)
    expect(row).toMatchObject({ mail: 'nadia@example.org', service: 'voice-assessment', open: 1 })
    expect(lineAt(row!.line, instant(now + 99 * HOUR)).is).toBe('offered')
    expect(await db.freed.where('open').equals(1).count()).toBe(100)
    // They are somebody from then on.
    expect(await db.people.where('emails').equals('nadia@example.org').count()).toBe(1)
    expect(inLineNow([row!], now)).toHaveLength(1)
    // Told once more, it is the same.
    await takeIn(db, page(items.slice(0, 40)))
    expect((await db.lines.toArray())[0]?.events).toEqual(events)
  })

  it('goes into a backup and comes back, the same bytes again', async () => {
    const months = demoMonths(now)
    await importBackup(db, months)
    expect(await db.lines.count()).toBe(months.lines?.length)
    const text = await exportBackup(db)
    const again = new DeskDatabase(`lines-again-${count}`)
    await importBackup(again, readBackup(text))
    expect(await exportBackup(again)).toBe(text)
    expect(readBackup(writeBackup(months)).freed?.length).toBe(months.freed?.length)
    await again.delete()
  })

  it('is refused from a file where a record has no beginning', () => {
    const backup = demoBackup(now)
    const lines = [{ id: 'line', events: [{ type: 'proved', at: now }] }]
    expect(() => readBackup(JSON.stringify({ ...backup, lines }))).toThrow(/lines\[0\].*no beginning/s)
    const worse = [{ id: 'line', events: [{ ...joined, windows: [{ weekdays: [8] }] }] }]
    expect(() => readBackup(JSON.stringify({ ...backup, lines: worse }))).toThrow(/weekdays/)
  })
})
