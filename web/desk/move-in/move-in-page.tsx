import type { PersonColumn } from '@acolhida/core/move-in'
import { dateAt } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import { relayNow } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import { type Desk, useDesk } from '../data/live.ts'
import { PageHead } from '../parts/page-head.tsx'
import { Tick } from '../parts/tick.tsx'
import { counted, homeZone } from '../parts/words.ts'
import { Card } from '../request/card.tsx'
import { batchesIn, takeBatchOut } from './batches.ts'
import { BeforeCard } from './before-card.tsx'
import { ColumnsMatched } from './columns-matched.tsx'
import { FileCard } from './file-card.tsx'
import { FoundRows, many } from './found.tsx'
import type { FileRead, MoveInAs, Tried } from './told.ts'
import { type MovingIn, useMoveIn } from './use-move-in.ts'

const NAMES: Record<PersonColumn, string> = {
  name: 'Name',
  given: 'First name',
  family: 'Last name',
  email: 'Mail address',
  phone: 'Phone',
  pronouns: 'Pronouns',
  birthday: 'Birthday',
  stage: 'How far you have come',
  cameFrom: 'Where they came from',
  tags: 'Tags',
  note: 'Note',
}

const peopleOf = (n: number): string => `${many(n)} ${n === 1 ? 'person' : 'people'}`

/** People from another place: read, tried, taken in together, and taken out again together. */
export function MoveInPage() {
  const desk = useDesk()
  const moving = useMoveIn()
  const { read, taken, problem } = moving
  return (
    <>
      <PageHead
        title="Move people in"
        line="From a table (CSV, or a workbook’s first sheet) or cards (vCard). Nothing is written before you have seen what would come of it, and nobody is written to."
      >
        <Link className="press" to="/people/move-in/sessions">
          Sessions and balances
        </Link>
        <Link className="press" to="/people">
          Back to everybody
        </Link>
      </PageHead>
      <div className="mt-5 grid gap-5 lg:grid-cols-[1fr_320px]">
        <div className="grid h-fit gap-4">
          <FileCard
            needs="A table needs headings in its first line, and a column with names and one with mail addresses."
            accept=".csv,.tsv,.txt,.xlsx,.vcf,text/csv,text/vcard"
            opened={read !== undefined}
            problem={problem}
            done={
              taken === undefined
                ? undefined
                : taken === 0
                  ? 'Nobody has come in.'
                  : `${peopleOf(taken)} ${taken === 1 ? 'has' : 'have'} come in.`
            }
            onFile={moving.open}
          />
          {read && <Reading key={`${read.name} ${read.many}`} desk={desk} read={read} moving={moving} />}
        </div>
        <Batches desk={desk} />
      </div>
    </>
  )
}

/** A file that was read: what its columns are, what would come of it, and taking it in. */
function Reading({ desk, read, moving }: { desk: Desk; read: FileRead; moving: MovingIn }) {
  const { tried, writing, tryIt } = moving
  const [columns, setColumns] = useState(read.table?.guess ?? [])
  const [worked, setWorked] = useState(true)
  const as = (): MoveInAs => {
    const now = relayNow()
    return { columns, worked, now, today: dateAt(homeZone(desk.practice), now) }
  }
  // biome-ignore lint/correctness/useExhaustiveDependencies: tried anew when what is wished for has changed
  useEffect(() => tryIt(as()), [columns, worked])
  return (
    <>
      {read.table && (
        <ColumnsMatched
          {...read.table}
          many={read.many}
          columns={columns}
          names={NAMES}
          onChange={setColumns}
        />
      )}
      <Card title="What would come of it">
        <Tick label="I have worked with them before: they are known" on={worked} onChange={setWorked} />
        {writing ? (
          <p className="mt-3" role="status">
            <progress className="progress progress-primary w-full" value={writing.done} max={writing.of} />
            {many(writing.done)} of {many(writing.of)}
          </p>
        ) : (
          <div className="mt-2 flex flex-wrap gap-2">
            <button
              type="button"
              className="press press-go"
              disabled={!tried || tried.come === 0}
              onClick={() => moving.take(as())}
            >
              Take {peopleOf(tried?.come ?? 0)} in
            </button>
            <button type="button" className="press press-quiet" onClick={moving.stop}>
              Leave it
            </button>
          </div>
        )}
        {tried ? <Trial tried={tried} /> : <p className="mt-2 text-soft">One moment …</p>}
      </Card>
    </>
  )
}

/** What a trial has found. */
function Trial({ tried: { here, twice, wrong, counts } }: { tried: Tried }) {
  return (
    <div className="mt-3 grid gap-2">
      <FoundRows
        title={`${peopleOf(counts.here)} ${counts.here === 1 ? 'is' : 'are'} here already, and stay as they are`}
        all={counts.here}
        of={here.map(({ row, name, email, known }) => ({ row, text: `${name}: ${email} is ${known}’s` }))}
      />
      <FoundRows
        title={`${counted(counts.twice, 'line is', 'lines are')} of somebody who stands in it before`}
        all={counts.twice}
        of={twice.map(({ row, name, first }) => ({ row, text: `${name}: as in ${first}` }))}
      />
      <FoundRows
        title={`${counted(counts.wrong, 'line', 'lines')} can’t come in`}
        all={counts.wrong}
        of={wrong.map(({ row, what, why }) => ({ row, text: what ? `${what}: ${why}` : why }))}
        open
      />
    </div>
  )
}

/** Who was moved in before, with the way to take them out again together. */
function Batches({ desk }: { desk: Desk }) {
  const batches = useLiveQuery(() => batchesIn(db), [])
  return (
    <BeforeCard
      {...{ desk, batches, title: 'Moved in before', nothing: 'Nobody so far.' }}
      words={({ people, file, stay }) =>
        `${peopleOf(people)} from ${file || 'a file'}${stay > 0 ? `; ${many(stay)} have booked since, and would stay` : ''}`
      }
      takeOut={({ id }) => takeBatchOut(db, id)}
      stays={({ people, stay }) => people === stay}
    />
  )
}
