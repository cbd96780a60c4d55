import { checkPractice, clockChanges } from '@acolhida/core/practice'
import { dateAt, shortDate } from '@acolhida/core/time'
import { useSearchParams } from 'react-router'
import { relayNow } from '../../relay-client/clock.ts'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { SettingsPage } from '../parts/settings-page.tsx'
import { Switch } from '../parts/switch.tsx'
import { ChangedDays } from './changed-days.tsx'
import { CopyDay } from './copy-day.tsx'
import { HoursFile } from './hours-file.tsx'
import { type Scope, scopeOf, withOwnHours } from './scope.ts'
import { Seasons } from './seasons.tsx'
import { TimeAway } from './time-away.tsx'
import { WeekDays } from './week-days.tsx'

/** When the practitioner works: every week, on changed days, and not at all; everywhere, or at one place. */
export function HoursPage() {
  const { practice } = useDesk()
  const [search, setSearch] = useSearchParams()
  const place = practice.places.find((place) => place.id === search.get('place'))
  const scope = scopeOf(practice, place?.id)
  const first = practice.profile.weekStart
  const order = [0, 1, 2, 3, 4, 5, 6].map((i) => (first - 1 + i) % 7)
  const at = practice.places.findIndex((place) => place.id === scope.place)
  const path = scope.place === undefined ? 'hours' : `places[${at}].hours`
  const faults = checkPractice(practice).filter((fault) => fault.path.startsWith(path))
  return (
    <SettingsPage
      title="Hours"
      line={`When you work, on the clock of ${scope.zone.name.replaceAll('_', ' ')}.`}
    >
      <div className="mb-4 flex flex-wrap items-center gap-x-4 gap-y-2">
        <label className="ask" htmlFor="hours-of">
          Hours
        </label>
        <select
          id="hours-of"
          className="field w-auto max-w-full"
          value={place?.id ?? ''}
          onChange={(event) => setSearch(event.target.value ? { place: event.target.value } : {})}
        >
          <option value="">as usual, wherever a place has none of its own</option>
          {practice.places.map((place) => (
            <option key={place.id} value={place.id}>
              {place.name}
            </option>
          ))}
        </select>
        {place && (
          <Switch
            label={`Hours of its own`}
            on={place.hours !== undefined}
            onChange={(own) =>
              changePractice(db, `the hours ${place.name}`, (p) => withOwnHours(p, place.id, own))
            }
          />
        )}
      </div>
      <div className="grid max-w-[1060px] gap-5 lg:grid-cols-[1fr_350px]">
        {place && !place.hours ? (
          <p className="sheet h-fit p-5">The usual hours count {place.name}.</p>
        ) : (
          <div key={scope.place} className="grid h-fit gap-5">
            <section className="sheet p-5">
              <div className="mb-2 flex flex-wrap items-baseline justify-between gap-2">
                <h2>Every week</h2>
                <CopyDay scope={scope} order={order} />
              </div>
              <p className="mb-3 text-[13px] text-soft">
                Draw on a band, or write stretches as 9:00 – 13:00, 14:00 – 18:00. An empty line is a day off.
              </p>
              <WeekDays
                practice={practice}
                weekly={scope.hours.weekly}
                change={(p, change) =>
                  scope.change(p, (hours) => ({ ...hours, weekly: change(hours.weekly) }))
                }
              />
              {faults.map((fault) => (
                <p key={fault.path} role="alert" className="mt-3 font-semibold text-clay">
                  {fault.message}
                </p>
              ))}
              <ClockNotes scope={scope} />
            </section>
            <Seasons practice={practice} scope={scope} />
            <ChangedDays practice={practice} scope={scope} />
          </div>
        )}
        <div className="h-fit">
          <TimeAway practice={practice} />
          <HoursFile key={scope.place} practice={practice} scope={scope} />
        </div>
      </div>
    </SettingsPage>
  )
}

/** Days of 23 or 25 hours in the year to come, where they touch the hours. */
function ClockNotes({ scope }: { scope: Scope }) {
  const changes = clockChanges(scope.hours, scope.zone, dateAt(scope.zone, relayNow()), 366)
  return (
    <>
      {changes.map(({ date, hours, block, wall, minutes }) => (
        <p key={date + block.from} className="note mt-3 bg-sun-soft text-[14px] text-sun-ink">
          The clocks change on {shortDate(date)}, a day of {hours} hours: {block.from} – {block.to} is{' '}
          {minutes === 0 ? 'no time at all' : `${minutes} min instead of ${wall}`} then.
        </p>
      ))}
    </>
  )
}
