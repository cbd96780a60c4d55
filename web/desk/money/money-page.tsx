import { accountOf, ibanWords } from '@acolhida/core/ledger'
import { money } from '@acolhida/core/money'
import { decimals } from '@acolhida/core/money/currency'
import type { Practice } from '@acolhida/core/practice'
import { ledgerOfPath } from '@acolhida/core/preparing'
import { date, dayNumber, type Instant } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { Link } from 'react-router'
import { useMinute } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import type { BookingRow } from '../data/rows.ts'
import { ActButton } from '../parts/act.tsx'
import { saveFile } from '../parts/file.tsx'
import { PageHead } from '../parts/page-head.tsx'
import { SavedField } from '../parts/saved-field.tsx'
import { counted, currencyOf, homeZone, serviceName, when } from '../parts/words.ts'
import { decideFor } from '../sync/acts.ts'
import { CardsCard } from './cards.tsx'
import { InvoicingCard } from './invoicing.tsx'
import { owingPaths, pathsOf } from './of-paths.ts'
import { Statement } from './statement.tsx'

/** What is open, what is to be given back, and how money comes. */
export function MoneyPage() {
  const desk = useDesk()
  const { practice } = desk
  const now = useMinute()
  const owing = useLiveQuery(() => db.bookings.where('owing').equals(1).toArray()) ?? []
  const { moneyFrom } = practice
  const from = moneyFrom ? homeZone(practice).toInstant(dayNumber(moneyFrom), 0) : 0
  const accounts = owing
    .filter(({ start }) => start >= from)
    .map((booking) => ({ booking, open: accountOf(booking).open }))
  const due = accounts.filter(({ booking, open }) => open > 0 && booking.start <= now)
  const coming = accounts.filter(({ booking, open }) => open > 0 && booking.start > now)
  const back = accounts.filter(({ open }) => open < 0)
  const save = async (): Promise<void> => {
    const { ledgerCsv } = await import('@acolhida/core/formats/ledger-csv')
    const all = await db.bookings.toArray()
    const rows = all.flatMap((booking) =>
      accountOf(booking).lines.map((line) => ({
        ...line,
        name: booking.asked.person.name,
        service: serviceName(practice, booking.service),
        currency: booking.asked.currency,
      })),
    )
    for (const { course } of await pathsOf(db)) {
      const { path, person } = course.given
      for (const line of ledgerOfPath(course))
        rows.push({ ...line, name: person.name, service: path?.name ?? '', currency: path?.currency ?? '' })
    }
    const csv = ledgerCsv(
      rows.sort((a, b) => a.at - b.at),
      decimals,
    )
    saveFile(`${practice.profile.slug}-ledger.csv`, 'text/csv', csv)
  }
  return (
    <>
      <PageHead title="Money" line="What is owed and what has come, from the record alone.">
        <ActButton onAct={save}>Save the ledger as CSV</ActButton>
      </PageHead>
      <div className="mt-5 grid gap-5 lg:grid-cols-[1fr_380px]">
        <div className="grid h-fit gap-5">
          <Owing title="Open" nothing="Nothing is open." practice={practice} of={due} />
          {back.length > 0 && <Owing title="To give back" nothing="" practice={practice} of={back} />}
          <OwingPaths practice={practice} now={now} />
          <Owing title="To come" nothing="Nothing is to come." practice={practice} of={coming} />
        </div>
        <div className="grid h-fit gap-5">
          <Statement desk={desk} />
          <Transfers practice={practice} />
          <CardsCard practice={practice} />
          <InvoicingCard practice={practice} />
          <section className="sheet p-5">
            <SavedField
              label="What is open counts from"
              what="from when money is kept here"
              type="date"
              value={moneyFrom ?? ''}
              help="Sessions before this day are in no list here: you have kept their money elsewhere."
              change={({ moneyFrom: _, ...p }, typed) =>
                typed.trim() ? { ...p, moneyFrom: date(typed.trim()) } : p
              }
            />
          </section>
        </div>
      </div>
    </>
  )
}

/** Paths of which money is still to come: what is due of each, and the next part. */
function OwingPaths({ practice, now }: { practice: Practice; now: Instant }) {
  const rows = useLiveQuery(() => pathsOf(db))
  const paths = owingPaths(rows ?? [], now)
  const people = useLiveQuery(
    () =>
      db.people
        .where('emails')
        .anyOf(paths.map(({ row }) => row.mail))
        .toArray(),
    [paths.map(({ row }) => row.mail).join(' ')],
  )
  if (paths.length === 0) return null
  const idOf = (mail: string): string | undefined => people?.find(({ emails }) => emails.includes(mail))?.id
  return (
    <section className="sheet px-[18px] py-4" aria-label="Paths">
      <h2>Paths</h2>
      <ul className="mt-1.5 divide-y divide-line">
        {paths.slice(0, SHOWN).map(({ row, name, currency, open, due, next }) => (
          <li key={row.id} className="flex flex-wrap items-center justify-between gap-3 py-2">
            <span className="min-w-0">
              <Link
                className="font-semibold underline-offset-3 hover:underline"
                to={`/people/${idOf(row.mail) ?? ''}`}
              >
                {name}
              </Link>
              <span className="block text-[14px] text-soft">
                {row.course.given.path?.name}, {money(next.open, currencyOf(currency))} by{' '}
                {when(practice, next.due)}
                {next.is === 'overdue' && <b className="text-clay"> · late</b>}
              </span>
            </span>
            <span className="figures text-right">
              <b>{money(due, currencyOf(currency))}</b>
              <span className="block text-[13px] text-soft">
                of {money(open, currencyOf(currency))} to come
              </span>
            </span>
          </li>
        ))}
      </ul>
      {paths.length > SHOWN && <p className="mt-1 text-[14px] text-soft">and {paths.length - SHOWN} more</p>}
    </section>
  )
}

/** How many are listed before the others are counted. */
const SHOWN = 50

function Owing({
  title,
  nothing,
  practice,
  of,
}: {
  title: string
  nothing: string
  practice: Practice
  of: readonly { booking: BookingRow; open: number }[]
}) {
  const inOrder = [...of].sort((a, b) => a.booking.start - b.booking.start)
  const sums = new Map<string, number>()
  for (const { booking, open } of inOrder)
    sums.set(booking.asked.currency, (sums.get(booking.asked.currency) ?? 0) + Math.abs(open))
  return (
    <section className="sheet px-[18px] py-4">
      <div className="flex items-baseline justify-between gap-3">
        <h2>{title}</h2>
        <span className="figures font-semibold">
          {[...sums].map(([code, sum]) => money(sum, currencyOf(code))).join(' · ')}
        </span>
      </div>
      {inOrder.length === 0 && <p className="mt-1.5 text-soft">{nothing}</p>}
      <ul className="mt-1.5 divide-y divide-line">
        {inOrder.slice(0, SHOWN).map(({ booking, open }) => (
          <li key={booking.id} className="flex flex-wrap items-center justify-between gap-3 py-2">
            <span className="min-w-0">
              <Link
                className="font-semibold underline-offset-3 hover:underline"
                to={`/arrivals/${booking.id}`}
              >
                {booking.asked.person.name}
              </Link>
              <span className="block text-[14px] text-soft">
                {serviceName(practice, booking.service)}, {when(practice, booking.start)}
              </span>
            </span>
            <span className="flex items-center gap-3">
              <b className="figures">{money(Math.abs(open), currencyOf(booking.asked.currency))}</b>
              {open > 0 && (
                <ActButton
                  className="press press-quiet px-2"
                  onAct={() => decideFor(booking, { do: 'pay', amount: open, way: 'cash' })}
                >
                  Note cash<span className="sr-only"> from {booking.asked.person.name}</span>
                </ActButton>
              )}
            </span>
          </li>
        ))}
      </ul>
      {inOrder.length > SHOWN && (
        <p className="mt-1 text-[14px] text-soft">and {counted(inOrder.length - SHOWN, 'more', 'more')}</p>
      )}
    </section>
  )
}

/** Where transfers go: with it, each booking has a reference of its own, on page and in mails. */
function Transfers({ practice }: { practice: Practice }) {
  const { transfer } = practice
  const change =
    (key: 'name' | 'iban' | 'bic') =>
    (p: Practice, typed: string): Practice => {
      const next = { name: '', iban: '', ...p.transfer, [key]: typed.trim() }
      const { transfer: _, ...rest } = p
      if (!next.iban) return rest
      const { bic, ...needed } = next
      return {
        ...rest,
        transfer: { ...needed, name: needed.name || p.profile.name, ...(bic ? { bic } : {}) },
      }
    }
  return (
    <section className="sheet grid gap-3 p-5">
      <h2>Transfers</h2>
      <SavedField
        label="Account number (IBAN)"
        what="where transfers go"
        value={transfer ? ibanWords(transfer.iban) : ''}
        change={change('iban')}
        help="With it, clients read where to transfer to, with a reference of their own and a code to scan."
      />
      {transfer && (
        <>
          <SavedField
            label="The name of the account"
            what="where transfers go"
            value={transfer.name}
            change={change('name')}
          />
          <SavedField
            label="Bank code (BIC), if it is asked for"
            what="where transfers go"
            value={transfer.bic ?? ''}
            change={change('bic')}
          />
        </>
      )}
    </section>
  )
}
