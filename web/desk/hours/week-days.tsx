import type { Block, Practice, Week } from '@acolhida/core/practice'
import { longWeekdayName } from '@acolhida/core/time'
import { HourMarks } from '../../drawings/hour-marks.tsx'
import { HoursBand } from '../../drawings/hours-band.tsx'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { SavedField } from '../parts/saved-field.tsx'
import { parseBlocks, typedBlocks } from './parse-blocks.ts'
import { Reserve } from './reserve.tsx'

/** A week with the blocks of one day (0 is Monday) changed. */
const withBlocks = (weekly: Week, day: number, change: (blocks: Block[]) => Block[]): Week =>
  weekly.map((before, i) => (i === day ? change(before) : before)) as Week

/** The days of a week, each drawn on a band or typed. */
export function WeekDays({
  practice,
  weekly,
  of = '',
  change,
}: {
  practice: Practice
  weekly: Week
  /** What sets this week apart, behind the name of a day: "in the season from 1 July". */
  of?: string
  /** The practice with this week changed. */
  change: (practice: Practice, change: (weekly: Week) => Week) => Practice
}) {
  const first = practice.profile.weekStart
  return (
    <>
      <HourMarks from={0} to={1_440} every={180} className="sm:ml-[108px]" />
      <ul className="grid gap-2.5">
        {[0, 1, 2, 3, 4, 5, 6].map((i) => {
          const day = (first - 1 + i) % 7
          return (
            <WeekDay
              key={day}
              practice={practice}
              day={day}
              of={of}
              blocks={weekly[day]!}
              change={(p, blocks) => change(p, (week) => withBlocks(week, day, blocks))}
            />
          )
        })}
      </ul>
    </>
  )
}

function WeekDay({
  practice,
  day,
  of,
  blocks,
  change,
}: {
  practice: Practice
  day: number
  of: string
  blocks: Block[]
  change: (practice: Practice, change: (blocks: Block[]) => Block[]) => Practice
}) {
  const name = longWeekdayName(day + 1)
  const long = [name, of].filter(Boolean).join(' ')
  const what = `the hours of ${long}`
  const act = useAct()
  const keep = (make: (blocks: Block[]) => Block[]): void =>
    act.run(() => changePractice(db, what, (p) => change(p, make)))
  return (
    <li>
      <SavedField
        beside
        label={name}
        set={of ? undefined : `weekly[${day}]`}
        what={what}
        value={typedBlocks(blocks)}
        change={(p, typed) => change(p, (before) => parseBlocks(typed, before))}
      />
      <div className="mt-1 sm:ml-[108px]">
        <HoursBand name={long} blocks={blocks} onChange={(next) => keep(() => next)} />
        <Reserve practice={practice} name={long} blocks={blocks} onChange={keep} />
        <ProblemNote of={act} />
      </div>
    </li>
  )
}
