import type { PeopleTable } from '@acolhida/core/move-in'
import {
  guessServices,
  guessSessionColumns,
  plainService,
  type SessionColumn,
  sessionsOfTable,
  siftSessions,
} from '@acolhida/core/move-in/sessions'
import { awayTimes } from '@acolhida/core/openings'
import { DAY, dateAt, type Instant, shift } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { useEffect, useMemo, useRef, useState } from 'react'
import { Link } from 'react-router'
import { relayNow } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import { type Desk, useDesk } from '../data/live.ts'
import { type Taken, useTaken } from '../data/taken.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { FileButton } from '../parts/file.tsx'
import { PageHead } from '../parts/page-head.tsx'
import { asOptions, PlainChoice, PlainField } from '../parts/plain-field.tsx'
import { Tick } from '../parts/tick.tsx'
import { counted, homeZone, when } from '../parts/words.ts'
import { Card } from '../request/card.tsx'
import { bringBody, bringSessionsIn, broughtIn, knowThem, takeBroughtOut } from './brought.ts'
import { ColumnsMatched } from './columns-matched.tsx'
import { FoundRows, many } from './found.tsx'
import type { SessionsTold, SessionsWish } from './sessions.worker.ts'

const NAMES: Record<SessionColumn, string> = {
  name: 'Name',
  given: 'First name',
  family: 'Last name',
  email: 'Mail address',
  phone: 'Phone',
  start: 'Start: day and time',
  date: 'Day',
  time: 'Time',
  end: 'End',
  minutes: 'Length in minutes',
  service: 'Service',
  place: 'Place',
  price: 'Price',
  paid: 'What has been paid of it',
  left: 'Sessions that are paid and left',
  owes: 'What is owed from before',
}

/** How far ahead what is in the diary is looked at. */
const AHEAD = 2 * 366 * DAY

/** Sessions and balances from another place: read, tried, brought in together, and taken out again together. */
export function BringInPage() {
  const desk = useDesk()
  const { read, problem, open, close } = useRead(desk)
  const [done, setDone] = useState('')
  return (
    <>
      <PageHead
        title="Bring sessions in"
        line="Sessions to come, and how people stand, from a table (CSV, or a workbook’s first sheet) or a calendar (.ics). Nothing is written before you have seen what would come of it, and nobody is told but whom you choose."
      >
        <Link className="press" to="/people/move-in">
          Move people in
        </Link>
      </PageHead>
      <div className="mt-5 grid gap-5 lg:grid-cols-[1fr_320px]">
        <div className="grid h-fit gap-4">
          <Card title="The file">
            <p className="mt-1.5 mb-3 text-[14px] text-soft">
              A table needs headings in its first line: who comes, their mail address, and when. A line
              without a day can say what somebody has left, or owes.
            </p>
            <FileButton
              accept=".csv,.tsv,.txt,.xlsx,.ics,text/csv,text/calendar"
              onFile={(file) => {
                setDone('')
                open(file)
              }}
            >
              {read ? 'Open another file' : 'Open a file'}
            </FileButton>
            {problem && (
              <p role="alert" className="mt-2 font-semibold text-clay">
                {problem}
              </p>
            )}
            {done && (
              <p role="status" className="note tag-fits mt-3">
                {done}
              </p>
            )}
          </Card>
          {read && (
            <Trying
              key={`${read.name} ${read.n}`}
              desk={desk}
              read={read}
              close={(said) => {
                setDone(said)
                close()
              }}
            />
          )}
        </div>
        <BroughtBefore desk={desk} />
      </div>
    </>
  )
}

interface Read {
  name: string
  table: PeopleTable
  /** How many have been read. */
  n: number
}

/** Reads a file in a worker of its own. */
function useRead({ practice }: Desk) {
  const [state, setState] = useState<{ read?: Read; problem?: string }>({})
  const worker = useRef<Worker>(undefined)
  const n = useRef(0)
  useEffect(() => () => worker.current?.terminate(), [])
  return {
    ...state,
    close: () => setState({}),
    open: (file: File) => {
      worker.current?.terminate()
      setState({})
      const next = new Worker(new URL('./sessions.worker.ts', import.meta.url), { type: 'module' })
      next.addEventListener('message', ({ data }: MessageEvent<SessionsTold>) => {
        n.current++
        setState('problem' in data ? data : { read: { ...data, n: n.current } })
        next.terminate()
      })
      next.addEventListener('error', () =>
        setState({ problem: 'This file can’t be read here: there is too little memory for it.' }),
      )
      worker.current = next
      const wish: SessionsWish = { file, now: relayNow(), home: practice.profile.zone }
      next.postMessage(wish)
    },
  }
}

/** What stands in the diary, with what it is called. */
function standing({ diary, name }: Taken, { practice }: Desk, from: Instant, to: Instant) {
  return [
    // A date on which people come together is no clash until somebody has come.
    ...diary.entries.flatMap((entry) =>
      entry.seats && !entry.taken ? [] : [{ start: entry.start, end: entry.end, name: name(entry) }],
    ),
    ...awayTimes(practice, from, to).map((away) => ({ start: away.from, end: away.to, name: 'time away' })),
  ]
}

/** A file that was read: its columns, its services, what would come of it, whom to tell, and bringing it in. */
function Trying({ desk, read, close }: { desk: Desk; read: Read; close: (said: string) => void }) {
  const { practice } = desk
  const { table, name } = read
  const [columns, setColumns] = useState(() => guessSessionColumns(table.headings))
  const [chosen, setChosen] = useState<Record<string, string>>({})
  const [usual, setUsual] = useState('')
  const [clashing, setClashing] = useState(true)
  const [worked, setWorked] = useState(true)
  const [told, setTold] = useState<ReadonlySet<number>>(new Set())
  const [standingName, setStandingName] = useState('From before')
  const [now] = useState(relayNow)
  const to = shift(now, AHEAD)
  const taken = useTaken(desk, now, to)
  const rows = useMemo(() => sessionsOfTable(table, columns), [table, columns])
  const said = useMemo(() => [...new Set(rows.flatMap(({ service }) => service || []))].slice(0, 100), [rows])
  const services = useMemo(
    () => ({ ...guessServices(said, practice.services), ...chosen }),
    [said, practice, chosen],
  )
  const sifted = useMemo(() => {
    if (!taken) return undefined
    const has = new Set(taken.rows.map(({ mail, start }) => `${mail} ${start}`))
    return siftSessions(rows, {
      ...{ practice, now, services, today: dateAt(homeZone(practice), now) },
      ...(usual ? { usual } : {}),
      taken: standing(taken, desk, now, to),
      has: (email, start) => has.has(`${email} ${start}`),
    })
  }, [taken, rows, practice, now, services, usual, desk, to])
  const act = useAct()
  const clashes = new Set(sifted?.clash.map(({ row }) => row))
  const come = sifted?.come.filter(({ row }) => clashing || !clashes.has(row)) ?? []
  const sessions = come.filter(({ session }) => session)
  const balances = come.filter(({ left, owes }) => left || owes)
  const bring = async (): Promise<string> => {
    const body = bringBody(come, {
      ...{ file: name, now: relayNow(), zone: practice.profile.zone, standing: standingName },
      tells: (row) => told.has(row),
    })
    const { sessions: some, standing: others } = await bringSessionsIn(db, body)
    if (worked) await knowThem(db, body)
    return `${counted(some, 'session has', 'sessions have')} come in${others > 0 ? `, and ${counted(others, 'balance', 'balances')}` : ''}.`
  }
  return (
    <>
      <ColumnsMatched
        headings={table.headings}
        some={table.rows.slice(0, 3)}
        many={table.rows.length}
        columns={columns}
        names={NAMES}
        onChange={setColumns}
      />
      <Card title="Which services they are">
        <div className="mt-2 grid gap-x-5 gap-y-2 sm:grid-cols-2">
          {said.map((text) => (
            <PlainChoice
              key={text}
              label={text}
              value={services[plainService(text)] ?? ''}
              options={[{ value: '', name: 'none of mine' }, ...asOptions(practice.services)]}
              onChange={(id) => setChosen({ ...chosen, [plainService(text)]: id })}
            />
          ))}
          <PlainChoice
            label="All others"
            value={usual}
            options={[{ value: '', name: 'are left out' }, ...asOptions(practice.services)]}
            onChange={setUsual}
          />
        </div>
      </Card>
      <Card title="What would come of it">
        {sifted ? (
          <>
            <Tick label="I have worked with them before: they are known" on={worked} onChange={setWorked} />
            {sifted.clash.length > 0 && (
              <Tick
                label="Bring in those too that would lie in something else"
                on={clashing}
                onChange={setClashing}
              />
            )}
            {balances.length > 0 && (
              <div className="mt-1 max-w-[360px]">
                <PlainField
                  label="What balances are called, also on people’s own pages"
                  value={standingName}
                  onChange={setStandingName}
                />
                <p className="mt-1 text-[13px] text-soft">
                  What is owed is due in 30 days, and told three days before.
                </p>
              </div>
            )}
            <div className="mt-2 flex flex-wrap gap-2">
              <button
                type="button"
                className="press press-go"
                disabled={come.length === 0 || act.busy || !standingName.trim()}
                onClick={() => {
                  let said = ''
                  act.run(
                    async () => {
                      said = await bring()
                    },
                    () => close(said),
                  )
                }}
              >
                Bring {counted(sessions.length, 'session', 'sessions')}
                {balances.length > 0 && ` and ${counted(balances.length, 'balance', 'balances')}`} in
              </button>
              <button type="button" className="press press-quiet" onClick={() => close('')}>
                Leave it
              </button>
            </div>
            <ProblemNote of={act} />
            <div className="mt-3 grid gap-2">
              <WhomToTell desk={desk} come={sessions} told={told} setTold={setTold} />
              <FoundRows
                title={`${counted(sifted.clash.length, 'session would lie', 'sessions would lie')} in something else`}
                all={sifted.clash.length}
                of={sifted.clash.map(({ row, name: who, start, with: what }) => ({
                  row,
                  text: `${who}, ${when(practice, start)}: ${what}`,
                }))}
                open
              />
              <FoundRows
                title={`${counted(sifted.here.length, 'session is', 'sessions are')} here already`}
                all={sifted.here.length}
                of={sifted.here.map(({ row, name: who, start }) => ({
                  row,
                  text: `${who}, ${when(practice, start)}`,
                }))}
              />
              <FoundRows
                title={`${counted(sifted.twice.length, 'line stands', 'lines stand')} in it twice`}
                all={sifted.twice.length}
                of={sifted.twice.map(({ row, name: who, first }) => ({
                  row,
                  text: `${who}: as in ${first}`,
                }))}
              />
              {sifted.past > 0 && (
                <p className="font-semibold">
                  {counted(sifted.past, 'session is', 'sessions are')} over, and left out
                </p>
              )}
              <FoundRows
                title={`${counted(sifted.wrong.length, 'line', 'lines')} can’t come in`}
                all={sifted.wrong.length}
                of={sifted.wrong.map(({ row, what, why }) => ({ row, text: what ? `${what}: ${why}` : why }))}
                open
              />
            </div>
          </>
        ) : (
          <p className="mt-2 text-soft">One moment …</p>
        )}
      </Card>
    </>
  )
}

/** Whose sessions are confirmed to them: everybody's, nobody's, or those of some. */
function WhomToTell({
  desk: { practice },
  come,
  told,
  setTold,
}: {
  desk: Desk
  come: readonly { row: number; person: { name: string }; session?: { start: Instant } }[]
  told: ReadonlySet<number>
  setTold: (told: ReadonlySet<number>) => void
}) {
  if (come.length === 0) return null
  const all = come.every(({ row }) => told.has(row))
  const some = come.filter(({ row }) => told.has(row)).length
  return (
    <details>
      <summary className="cursor-pointer font-semibold">
        {some === 0
          ? 'Nobody is told; reminders go as ever'
          : `${many(some)} of ${many(come.length)} get a confirmation`}
      </summary>
      <Tick
        label="Send everybody a confirmation"
        on={all}
        onChange={(on) => setTold(on ? new Set(come.map(({ row }) => row)) : new Set())}
      />
      <section
        className="max-h-[240px] overflow-y-auto border-t border-line"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is reached by keyboard
        tabIndex={0}
        aria-label="Who gets a confirmation"
      >
        {come.map(({ row, person, session }) => (
          <Tick
            key={row}
            label={`${person.name}, ${session ? when(practice, session.start) : ''}`}
            on={told.has(row)}
            onChange={(on) => setTold(new Set(on ? [...told, row] : [...told].filter((one) => one !== row)))}
          />
        ))}
      </section>
    </details>
  )
}

/** What was brought in before and is still as it came, with the way to take it out again. */
function BroughtBefore({ desk }: { desk: Desk }) {
  const batches = useLiveQuery(() => broughtIn(db, relayNow()), [])
  const act = useAct()
  return (
    <div className="h-fit">
      <Card title="Brought in before">
        {batches?.length === 0 && <p className="mt-2 text-soft">Nothing that is still as it came.</p>}
        <ul className="mt-2 grid gap-3">
          {batches?.map((batch) => (
            <li key={batch.id}>
              <b className="block">{when(desk.practice, batch.at)}</b>
              <span className="block text-[14px] text-soft wrap-anywhere">
                {counted(batch.bookings.length, 'session', 'sessions')}
                {batch.courses.length > 0 && `, ${counted(batch.courses.length, 'balance', 'balances')}`} from{' '}
                {batch.file || 'a file'}, to come and as they came
              </span>
              <button
                type="button"
                className="press press-quiet mt-1"
                disabled={act.busy}
                onClick={() => act.run(() => takeBroughtOut(db, batch))}
              >
                Take them out again
              </button>
            </li>
          ))}
        </ul>
        <ProblemNote of={act} />
      </Card>
    </div>
  )
}
