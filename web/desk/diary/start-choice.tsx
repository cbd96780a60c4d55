import type { Between, Closure } from '@acolhida/core/openings'
import { placeOf, serviceOf, zoneOf } from '@acolhida/core/practice'
import { DAY, dateTimeAt, type Instant, moment, shift } from '@acolhida/core/time'
import { useMemo } from 'react'
import { Link } from 'react-router'
import { useMinute } from '../../relay-client/clock.ts'
import type { Desk } from '../data/live.ts'
import { type Taken, useTaken } from '../data/taken.ts'
import { DateField, TimeField } from '../parts/date-field.tsx'
import { NumberField } from '../parts/number-field.tsx'
import { asOptions, PlainChoice } from '../parts/plain-field.tsx'
import { closureLink } from './closure-link.ts'
import { DayToPick } from './day-to-pick.tsx'
import { type Chosen, dayOf, Scales, startIn, UNKNOWN, type Weighed } from './weigh.ts'

/** How far around a start others are looked for, in ms. */
const AROUND = 4 * DAY

/** What lies around a start that is being chosen. */
interface Around {
  /** The nearest open starts, before and after. */
  nearest: Instant[]
  /** All open starts of its day. */
  open: Instant[]
  taken: Taken | undefined
}

/** What would follow from a start as it is typed, and the nearest open ones. */
export function useWeighed(desk: Desk, chosen: Chosen, but?: string, between?: Between): Weighed & Around {
  const now = useMinute()
  const { practice } = desk
  const around = startIn(practice, chosen) ?? now
  const taken = useTaken(
    desk,
    shift(around, -AROUND),
    shift(around, AROUND),
    but === undefined ? undefined : [but],
  )
  const scales = useMemo(
    () => taken && new Scales(practice, taken, now, between),
    [practice, taken, now, between],
  )
  return useMemo(() => {
    if (!scales) return { ...UNKNOWN, nearest: [], open: [], taken: undefined }
    const weighed = scales.typed(chosen)
    const nearest = weighed.start === undefined ? [] : scales.nearest(chosen, weighed.start)
    const on = dayOf(chosen)
    return { ...weighed, nearest, open: on ? scales.openOn(chosen, on) : [], taken }
  }, [scales, chosen, taken])
}

function ToRule({ closure }: { closure: Closure }) {
  const link = closureLink(closure)
  return (
    link && (
      <Link className="way" to={link.to}>
        {link.words}
      </Link>
    )
  )
}

const timeOf = ({ at }: Pick<Chosen, 'at'>): string => at.slice(at.indexOf('T') + 1)

/** Fields for service, place, day, time and length, with the consequences beside them. */
export function StartChoice<C extends Chosen>({
  desk,
  chosen,
  weighed,
  onChange,
}: {
  desk: Desk
  chosen: C
  weighed: ReturnType<typeof useWeighed>
  onChange: (chosen: C) => void
}) {
  const { practice } = desk
  const service = serviceOf(practice, chosen.service)
  const place = placeOf(practice, chosen.place)
  const where = zoneOf(practice, place)
  return (
    <>
      <div className="grid grid-cols-2 gap-3">
        <PlainChoice
          label="Service"
          value={chosen.service}
          options={asOptions(practice.services)}
          onChange={(id) => {
            const next = serviceOf(practice, id)
            if (!next) return
            const stays = next.places.includes(chosen.place)
            onChange({
              ...chosen,
              service: next.id,
              place: stays ? chosen.place : next.places[0]!,
              minutes: next.minutes,
            })
          }}
        />
        <PlainChoice
          label="Where"
          value={chosen.place}
          options={asOptions(
            practice.places.filter(({ id }) => service?.places.includes(id) || id === chosen.place),
          )}
          onChange={(place) => onChange({ ...chosen, place, travel: undefined })}
        />
        {place?.kind === 'client' && (place.travel?.length ?? 0) > 0 && (
          <label className="ask col-span-2">
            How far
            <select
              className="field mt-1"
              value={chosen.travel ?? ''}
              onChange={(event) => onChange({ ...chosen, travel: event.target.value || undefined })}
            >
              <option value="">not said</option>
              {place.travel?.map((zone) => (
                <option key={zone.id} value={zone.id}>
                  {zone.name}
                </option>
              ))}
            </select>
          </label>
        )}
        <DateField
          label="Day"
          value={dayOf(chosen) ?? ''}
          onChange={(day) => onChange({ ...chosen, at: `${day}T${timeOf(chosen)}` })}
        />
        <div className="grid grid-cols-2 gap-3">
          <TimeField
            label="Time"
            value={timeOf(chosen)}
            onChange={(time) => onChange({ ...chosen, at: `${dayOf(chosen) ?? ''}T${time}` })}
          />
          <NumberField
            label="Minutes"
            value={chosen.minutes}
            onChange={(minutes) => onChange({ ...chosen, minutes })}
          />
        </div>
      </div>
      <DayToPick desk={desk} chosen={chosen} weighed={weighed} onChange={onChange} />
      <div
        role="status"
        className={`note mt-3 ${weighed.closures.length === 0 ? 'tag-fits' : weighed.clash ? 'tag-closed' : 'tag-look'}`}
      >
        {weighed.start === undefined &&
          startIn(practice, chosen) === undefined &&
          'Please give a day, a time and a length.'}
        {weighed.start !== undefined &&
          weighed.closures.length === 0 &&
          `${moment(weighed.start, where)} is open.`}
        {weighed.closures.length > 0 && (
          <>
            <b>
              {weighed.blocked
                ? 'That can’t be:'
                : weighed.clash
                  ? 'That would be a clash:'
                  : 'You may, though your own rules are against it:'}
            </b>
            <ul className="list-disc pl-5">
              {weighed.closures.map(({ closure, words }) => (
                <li key={words}>
                  {words} <ToRule closure={closure} />
                </li>
              ))}
            </ul>
          </>
        )}
        {weighed.closures.length > 0 && weighed.nearest.length > 0 && (
          <p className="mt-1.5 flex flex-wrap gap-x-3">
            Nearest open:
            {weighed.nearest.map((at) => (
              <button
                key={at}
                type="button"
                className="way"
                onClick={() => onChange({ ...chosen, at: dateTimeAt(where, at) })}
              >
                {moment(at, where)}
              </button>
            ))}
          </p>
        )}
      </div>
    </>
  )
}
