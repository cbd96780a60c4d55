import { type Block, checkPractice, type Practice } from '@acolhida/core/practice'
import { longWeekdayName } from '@acolhida/core/time'
import { HoursBand } from '../../drawings/hours-band.tsx'
import { changePractice } from '../data/change.ts'
import { db } from '../data/database.ts'
import { useDesk } from '../data/live.ts'
import { ChangedDays } from '../parts/changed-days.tsx'
import { CopyDay } from '../parts/copy-day.tsx'
import { parseBlocks } from '../parts/parse-blocks.ts'
import { SavedField } from '../parts/saved-field.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { TimeAway } from '../parts/time-away.tsx'

/** The practice with the hours of one weekday (0 is Monday) set. */
export const withDay = (practice: Practice, day: number, blocks: Block[]): Practice => ({
  ...practice,
  hours: {
    ...practice.hours,
    weekly: practice.hours.weekly.map((before, i) =>
      i === day ? blocks : before,
    ) as Practice['hours']['weekly'],
  },
})

/** When the practitioner works: every week, on changed days, and not at all. */
export function HoursPage() {
  const { practice } = useDesk()
  const first = practice.profile.weekStart
  const order = [0, 1, 2, 3, 4, 5, 6].map((i) => (first - 1 + i) % 7)
  const faults = checkPractice(practice).filter((fault) => fault.path.startsWith('hours'))
  return (
    <SettingsPage
      title="Hours"
      line={`When you work, on the clock of ${practice.profile.zone.replaceAll('_', ' ')}.`}
    >
      <div className="grid max-w-[1060px] gap-5 lg:grid-cols-[1fr_350px]">
        <div className="grid h-fit gap-5">
          <section className="sheet p-5">
            <div className="mb-2 flex flex-wrap items-baseline justify-between gap-2">
              <h2>Every week</h2>
              <CopyDay practice={practice} order={order} />
            </div>
            <p className="mb-3 text-[13px] text-soft">
              Draw on a band, or write stretches as 9:00 – 13:00, 14:00 – 18:00. An empty line is a day off.
            </p>
            <ul className="grid gap-2.5">
              {order.map((day) => (
                <Day key={day} practice={practice} day={day} />
              ))}
            </ul>
            {faults.map((fault) => (
              <p key={fault.path} role="alert" className="mt-3 font-semibold text-clay">
                {fault.message}
              </p>
            ))}
          </section>
          <ChangedDays practice={practice} />
        </div>
        <TimeAway practice={practice} />
      </div>
    </SettingsPage>
  )
}

function Day({ practice, day }: { practice: Practice; day: number }) {
  const blocks = practice.hours.weekly[day]!
  const name = longWeekdayName(day + 1)
  const what = `the hours of ${name}`
  return (
    <li>
      <SavedField
        beside
        label={name}
        what={what}
        value={blocks.map((block) => `${block.from} – ${block.to}`).join(', ')}
        change={(p, typed) => withDay(p, day, parseBlocks(typed, p.hours.weekly[day]!))}
      />
      <div className="mt-1 sm:ml-[108px]">
        <HoursBand
          name={name}
          blocks={blocks}
          onChange={(next) => changePractice(db, what, (p) => withDay(p, day, next)).catch(() => undefined)}
        />
      </div>
    </li>
  )
}
