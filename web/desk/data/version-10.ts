import { normalMail } from '@acolhida/core/people'
import type { Transaction } from 'dexie'
import type { BookingRow, PersonRow } from './rows.ts'

const PLAIN = /^[\x21-\x7e]*$/

/** Addresses are compared as the DNS and mail hosts have them since: those that are written otherwise are told anew. */
export async function deskToVersion10(changes: Transaction): Promise<void> {
  const mails = ['lines', 'replies'] as const
  for (const name of mails)
    await changes
      .table<{ mail: string }>(name)
      .filter(({ mail }) => !PLAIN.test(mail))
      .modify((row) => {
        row.mail = normalMail(row.mail)
      })
  await changes
    .table<BookingRow>('bookings')
    .filter(({ mail }) => !PLAIN.test(mail))
    .modify((row) => {
      row.mail = normalMail(row.mail)
    })
  await changes
    .table<PersonRow>('people')
    .filter(({ emails }) => !emails.every((email) => PLAIN.test(email)))
    .modify((row) => {
      row.emails = [...new Set(row.emails.map(normalMail))]
    })
}
