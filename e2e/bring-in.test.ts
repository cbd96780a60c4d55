import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { look } from './axe.ts'
import { mailTo } from './client.ts'
import { eventually, type House, openHouse } from './house.ts'

let house: House
let desk: Page
const folder = mkdtempSync(join(tmpdir(), 'acolhida-bring-in-'))
beforeAll(async () => {
  house = await openHouse()
  desk = await house.openDesk()
})
afterAll(async () => {
  await house.close()
  rmSync(folder, { recursive: true, force: true })
})

const put = (name: string, text: string): string => {
  const path = join(folder, name)
  writeFileSync(path, text)
  return path
}
const bookings = () => [...house.relay.here.keeper.house.openBookings()]

it('sessions and balances come in from a table: tried first, clashes shown, told whom one chooses', async () => {
  await desk.goto(`${house.desk}/people/move-in`)
  await desk.getByRole('link', { name: 'Sessions and balances' }).click()
  await desk.getByRole('heading', { level: 1, name: 'Bring sessions in' }).waitFor()
  const file = put(
    'sessions.csv',
    [
      'Client;E-mail;Date;Time;Service;Price;Paid;Sessions left;Owes',
      'Ana Prova;ana@example.org;15/03/2027;10:00;Coaching;80,00;20;;',
      'Bo Prova;bo@example.org;15/03/2027;10:30;Coaching;;;;',
      'Cy Prova;cy@example.org;16/03/2027;9h;Coaching;;;4;',
      'Di Prova;di@example.org;;;;;;;35',
      'Ed Prova;ed@example.org;31/02/2027;10:00;Coaching;;;;',
      'Fi Prova;fi@example.org;01/03/2020;10:00;Coaching;;;;',
    ].join('\n'),
  )
  await desk.getByLabel('Open a file').setInputFiles(file)
  await desk.getByRole('button', { name: 'Bring 3 sessions and 2 balances in' }).waitFor()
  await desk.getByText('2 sessions would lie in something else').waitFor()
  await desk.getByText('Ed Prova: “31/02/2027” is not a date', { exact: false }).waitFor()
  await desk.getByText('1 session is over, and left out').waitFor()
  await desk.getByText('Nobody is told; reminders go as ever').click()
  await desk.getByRole('checkbox', { name: /^Ana Prova/ }).check()
  await look(desk, 'bring-in')
  const before = bookings().length
  await desk.getByRole('button', { name: 'Bring 3 sessions and 2 balances in' }).click()
  await desk.getByText('3 sessions have come in, and 2 balances.').waitFor()
  await desk.getByText('3 sessions, 2 balances from sessions.csv', { exact: false }).waitFor()
  expect(bookings().length).toBe(before + 3)
  await house.relay.rounds.turn()
  await mailTo(house, 'ana@example.org', /./)
  expect(house.mailbox.received.filter(({ to }) => to.includes('bo@example.org'))).toEqual([])
  // They stand with their person: what is booked, what has come, what is left.
  await desk.goto(`${house.desk}/people?q=Cy+Prova`)
  await desk.getByRole('link', { name: 'Cy Prova' }).click()
  await desk.getByText('From before').first().waitFor()
  await desk.getByText('Known', { exact: true }).waitFor()
  await look(desk, 'bring-in-person')
})

it('and are taken out again as a whole, where nothing has gone on since', async () => {
  await desk.goto(`${house.desk}/people/move-in/sessions`)
  await desk.getByRole('button', { name: 'Take them out again' }).click()
  await desk.getByText('Nothing that is still as it came.').waitFor()
  await eventually('they are gone', () =>
    bookings().every(({ asked, status }) => status !== 'booked' || !/prova/i.test(asked.person.name)),
  )
})

it('a calendar comes in, too, one session of a repeated event at a time', async () => {
  const file = put(
    'calendar.ics',
    [
      ...[
        'BEGIN:VCALENDAR',
        'VERSION:2.0',
        'PRODID:-//example//EN',
        'BEGIN:VEVENT',
        'UID:weekly@example.org',
      ],
      ...[
        'DTSTAMP:20261101T000000Z',
        'SUMMARY:Coaching with Ana',
        'DTSTART;TZID=Europe/Lisbon:20270401T100000',
      ],
      ...['DTEND;TZID=Europe/Lisbon:20270401T105000', 'RRULE:FREQ=WEEKLY;COUNT=3'],
      ...['ATTENDEE;CN=Ana Prova:mailto:ana@example.org', 'END:VEVENT', 'END:VCALENDAR', ''],
    ].join('\r\n'),
  )
  await desk.getByLabel('Open a file').setInputFiles(file)
  await desk.getByRole('button', { name: 'Bring 0 sessions in' }).waitFor()
  await desk.getByLabel('Coaching with Ana').selectOption({ label: 'Coaching session' })
  await desk.getByRole('button', { name: 'Bring 3 sessions in' }).click()
  await desk.getByText('3 sessions have come in.').waitFor()
  const text = put('letter.txt', 'Dear you,\n')
  await desk.getByLabel('Open a file').setInputFiles(text)
  await desk.getByText('This file has headings, or one line, and nobody below them.').waitFor()
})
