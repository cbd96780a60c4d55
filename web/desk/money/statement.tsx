import type { Matched, StatementColumns, StatementEntry } from '@acolhida/core/formats/statement'
import { accountOf, referenceOf } from '@acolhida/core/ledger'
import { money } from '@acolhida/core/money'
import { decimals } from '@acolhida/core/money/currency'
import type { Practice } from '@acolhida/core/practice'
import { dateWords } from '@acolhida/core/time'
import { useState } from 'react'
import { relayNow } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import type { Desk } from '../data/live.ts'
import type { BookingRow } from '../data/rows.ts'
import { ActButton, ProblemNote, useAct } from '../parts/act.tsx'
import { FileButton } from '../parts/file.tsx'
import { PlainChoice } from '../parts/plain-field.tsx'
import { counted, currencyOf, serviceName, when } from '../parts/words.ts'
import { doWithCourse } from '../sync/acts.ts'
import { decideEach } from '../sync/together.ts'
import { type OwingPath, owingPaths, pathsOf } from './of-paths.ts'

/** A table whose columns are still to be named. */
interface Table {
  head: string[]
  rows: string[][]
}

/** A bank statement opened at the desk, and what each entry is for. It stays here. */
export function Statement({ desk }: { desk: Desk }) {
  const { practice } = desk
  const [table, setTable] = useState<Table>()
  const [matched, setMatched] = useState<Matched[]>()
  const [rows, setRows] = useState<ReadonlyMap<string, PaidFor>>(new Map())
  const match = async (entries: StatementEntry[]): Promise<void> => {
    const { matchEntries } = await import('@acolhida/core/formats/statement')
    const owing = await db.bookings.where('owing').equals(1).toArray()
    const all = await db.bookings.toArray()
    const noted = new Set(
      all.flatMap(({ payments = [] }) => payments.flatMap(({ source }) => (source ? [source] : []))),
    )
    const open = owing.map((booking) => ({
      booking: booking.id,
      name: booking.asked.person.name,
      reference: referenceOf(booking),
      open: accountOf(booking).open,
      currency: booking.asked.currency,
    }))
    const paths = await pathsOf(db)
    for (const { course } of paths)
      for (const { source } of course.payments ?? []) if (source) noted.add(source)
    const ofPaths = owingPaths(paths, relayNow())
    setRows(
      new Map<string, PaidFor>([
        ...owing.map((booking) => [booking.id, { booking }] as const),
        ...ofPaths.map((path) => [path.row.id, { path }] as const),
      ]),
    )
    setMatched(
      matchEntries(
        entries,
        [
          ...open.filter((one) => one.open > 0),
          // The part that is next is what is usually sent; any other amount is looked at.
          ...ofPaths.map(({ row, name, reference, currency, next }) => ({
            ...{ booking: row.id, name, reference, currency, open: next.open },
          })),
        ],
        noted,
      ),
    )
    setTable(undefined)
  }
  const read = async (file: File): Promise<void> => {
    const { camtEntries, statementTable } = await import('@acolhida/core/formats/statement')
    const text = await file.text()
    setMatched(undefined)
    if (text.trimStart().startsWith('<')) await match(camtEntries(text, decimals))
    else setTable(statementTable(text))
  }
  const sure = (matched ?? []).flatMap(({ entry, sure: id }) => {
    const of = id === undefined ? undefined : rows.get(id)
    return of ? [{ entry, of }] : []
  })
  const doubts = (matched ?? []).filter(({ sure: id, noted }) => id === undefined && !noted)
  const before = (matched ?? []).filter(({ noted }) => noted).length
  const note = (entry: StatementEntry) => ({
    ...{ do: 'pay' as const, amount: entry.amount, way: 'transfer' as const, source: entry.source },
    ...(entry.text ? { text: entry.text.slice(0, 500) } : {}),
  })
  /** Notes entries, each with what it is for. */
  const noteAll = async (all: readonly { entry: StatementEntry; of: PaidFor }[]): Promise<void> => {
    await decideEach(
      all.flatMap(({ entry, of }) =>
        'booking' in of ? [{ booking: of.booking, command: note(entry) }] : [],
      ),
    )
    for (const { entry, of } of all) if ('path' in of) await doWithCourse(of.path.row.id, note(entry))
  }
  return (
    <section className="sheet p-5">
      <h2>A bank statement</h2>
      <p className="mt-1 text-[14px] text-soft">
        As your bank gives it: ISO 20022 (camt.053), or a table (CSV). It is read here, and goes nowhere.
      </p>
      <div className="mt-2 grid">
        <FileButton accept=".xml,.csv,.txt" onFile={read}>
          Open a statement
        </FileButton>
      </div>
      {table && <Columns table={table} currency={practice.profile.currency} onRead={match} />}
      {matched && (
        <div role="status" className="mt-3 grid gap-2">
          <p>
            {counted(sure.length, 'entry is', 'entries are')} sure, {doubts.length} to look at
            {before > 0 && `, ${before} noted before`}.
          </p>
          {sure.length > 0 && (
            <ActButton
              className="press press-go justify-self-start"
              onAct={() => noteAll(sure)}
              then={() => setMatched(matched.filter(({ sure: id }) => id === undefined))}
            >
              Note {sure.length === 1 ? 'the sure one' : `the ${sure.length} sure ones`}
            </ActButton>
          )}
          <ul className="grid gap-2">
            {doubts.map(({ entry, perhaps }) => (
              <li key={entry.source} className="border-t border-line pt-2 text-[14px]">
                <b className="figures">{money(entry.amount, currencyOf(entry.currency))}</b> ·{' '}
                {dateWords(entry.on)} · {entry.name}
                <span className="block text-soft wrap-anywhere">{entry.text}</span>
                {perhaps.length === 0 && (
                  <span className="text-soft">Nothing open that it could be for.</span>
                )}
                {perhaps.map(({ booking: id, why }) => {
                  const of = rows.get(id)
                  if (!of) return null
                  return (
                    <span key={id} className="mt-1 flex flex-wrap items-center justify-between gap-2">
                      <span>
                        {forWords(practice, of)}: {WHY[why]}
                      </span>
                      <ActButton
                        className="press press-quiet px-2"
                        onAct={() => noteAll([{ entry, of }])}
                        then={() => setMatched(matched.filter((one) => one.entry !== entry))}
                      >
                        It is for this
                      </ActButton>
                    </span>
                  )
                })}
              </li>
            ))}
          </ul>
        </div>
      )}
    </section>
  )
}

/** What an entry can be for: a booking, or a path. */
type PaidFor = { booking: BookingRow } | { path: OwingPath }

const forWords = (practice: Practice, of: PaidFor): string =>
  'booking' in of
    ? `${of.booking.asked.person.name}, ${serviceName(practice, of.booking.service)}, ${when(practice, of.booking.start)}`
    : `${of.path.name}, ${of.path.row.course.given.path?.name ?? ''}, due ${when(practice, of.path.next.due)}`

const WHY = {
  reference: 'its reference, another amount',
  name: 'by name and amount, without the reference',
  amount: 'by name alone, another amount',
} as const

/** Which column of a table holds what. */
function Columns({
  table,
  currency,
  onRead,
}: {
  table: Table
  currency: string
  onRead: (entries: StatementEntry[]) => Promise<void>
}) {
  const guess = (words: RegExp): number => table.head.findIndex((name) => words.test(name))
  const [columns, setColumns] = useState({
    date: Math.max(0, guess(/date|day|data/i)),
    amount: Math.max(0, guess(/amount|sum|value|valor|montante/i)),
    name: guess(/name|payer|sender|nome|ordenante/i),
    text: Math.max(0, guess(/text|reference|purpose|descr/i)),
  })
  const act = useAct()
  const options = table.head.map((name, i) => ({ value: String(i), name: name || `Column ${i + 1}` }))
  const choose = (key: keyof StatementColumns, label: string) => (
    <PlainChoice
      label={label}
      value={String(columns[key])}
      options={key === 'name' ? [{ value: '-1', name: 'No column' }, ...options] : options}
      onChange={(to) => setColumns((now) => ({ ...now, [key]: Number(to) }))}
    />
  )
  const read = async (): Promise<void> => {
    const { tableEntries } = await import('@acolhida/core/formats/statement')
    const { name, ...rest } = columns
    const entries = tableEntries(
      table.rows,
      { ...rest, ...(name >= 0 ? { name } : {}) },
      currency,
      decimals(currency),
    )
    if (entries.length === 0)
      throw new Error('With these columns, no row holds a day and an amount that has come in.')
    await onRead(entries)
  }
  return (
    <div className="mt-3 grid gap-2">
      <p className="text-[14px] text-soft">Which column is which?</p>
      {choose('date', 'The day')}
      {choose('amount', 'The amount')}
      {choose('name', 'Who has paid')}
      {choose('text', 'What is written with it')}
      <button type="button" className="press press-go justify-self-start" onClick={() => act.run(read)}>
        Read it so
      </button>
      <ProblemNote of={act} />
    </div>
  )
}
