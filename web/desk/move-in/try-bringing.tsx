import {
  bringBody,
  guessServices,
  guessSessionColumns,
  inTheWay,
  plainService,
  type SessionColumn,
  sessionsOfTable,
  siftSessions,
} from '@acolhida/core/move-in/sessions'
import { DAY, dateAt, shift } from '@acolhida/core/time'
import { useMemo, useState } from 'react'
import { newKey } from '../../relay-client/client.ts'
import { relayNow } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import type { Desk } from '../data/live.ts'
import { useTaken } from '../data/taken.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { asOptions, PlainChoice, PlainField } from '../parts/plain-field.tsx'
import { Tick } from '../parts/tick.tsx'
import { counted, homeZone, when } from '../parts/words.ts'
import { Card } from '../request/card.tsx'
import { bringSessionsIn, knowThem } from './brought.ts'
import { ColumnsMatched } from './columns-matched.tsx'
import { FoundRows } from './found.tsx'
import type { SessionsFile } from './use-sessions-file.ts'
import { WhomToTell } from './whom-to-tell.tsx'

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

/** A file that was read: its columns, its services, what would come of it, whom to tell, and bringing it in. */
export function TryBringing({
  desk,
  read,
  close,
}: {
  desk: Desk
  read: SessionsFile
  close: (said: string) => void
}) {
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
      taken: inTheWay(practice, taken.diary, [now, to], taken.name),
      has: (email, start) => has.has(`${email} ${start}`),
    })
  }, [taken, rows, practice, now, services, usual, to])
  const act = useAct()
  const clashes = new Set(sifted?.clash.map(({ row }) => row))
  const come = sifted?.come.filter(({ row }) => clashing || !clashes.has(row)) ?? []
  const sessions = come.filter(({ session }) => session)
  const balances = come.filter(({ left, owes }) => left || owes)
  const bring = async (): Promise<string> => {
    const body = bringBody(come, {
      ...{ ids: newKey, file: name, now: relayNow(), zone: practice.profile.zone, standing: standingName },
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
              <WhomToTell practice={practice} come={sessions} told={told} setTold={setTold} />
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
