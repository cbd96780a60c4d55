import {
  addDays,
  type LocalDate,
  longWeekdayName,
  shortDate,
  type WallTime,
  type Weekday,
  weekdayName,
} from '@acolhida/core/time'
import { partOn, type WaitingWindow } from '@acolhida/core/waiting'
import { X } from 'lucide-react'
import { useId, useState } from 'react'
import { HourMarks } from '../drawings/hour-marks.tsx'
import { HoursBand } from '../drawings/hours-band.tsx'
import { say } from './say.ts'
import { windowWords } from './window-words.ts'

const WEEKDAYS: readonly Weekday[] = [1, 2, 3, 4, 5, 6, 7]

/** How many days can be drawn on, and how far "the next weeks" reach. */
const DRAWN = 14
const WEEKS = 21

/**
 * When somebody could come: typed as dates, weekdays and times of day, or drawn on the bands of the next days.
 * @param today by the clock that counts
 */
export function WindowsEdit({
  legend = say('window.when'),
  windows,
  today,
  onChange,
}: {
  legend?: string
  windows: readonly WaitingWindow[]
  today: LocalDate
  onChange: (windows: WaitingWindow[]) => void
}) {
  const [open, setOpen] = useState<'typed' | 'drawn'>()
  const toggle = (what: 'typed' | 'drawn', name: string) => (
    <button
      type="button"
      className="way min-h-[44px]"
      aria-expanded={open === what}
      onClick={() => setOpen(open === what ? undefined : what)}
    >
      {name}
    </button>
  )
  return (
    <fieldset className="grid gap-3">
      <legend className="ask mb-1">{legend}</legend>
      {windows.length === 0 ? (
        <p className="text-soft">{say('window.none')}</p>
      ) : (
        <ul className="flex flex-wrap gap-2">
          {windows.map((window, nth) => {
            const words = windowWords(window)
            return (
              <li key={words} className="tag tag-info flex items-center gap-1 py-0 pr-0">
                {words}
                <button
                  type="button"
                  className="grid size-9 cursor-pointer place-items-center"
                  aria-label={say('window.remove', { window: words })}
                  onClick={() => onChange(windows.filter((_, other) => other !== nth))}
                >
                  <X size={14} aria-hidden="true" />
                </button>
              </li>
            )
          })}
        </ul>
      )}
      <div className="flex flex-wrap gap-x-5">
        <button
          type="button"
          className="way min-h-[44px]"
          onClick={() => onChange(added(windows, { from: today, to: addDays(today, WEEKS) }))}
        >
          {say('window.weeks')}
        </button>
        {toggle('typed', say('window.typed'))}
        {toggle('drawn', say('window.draw'))}
      </div>
      {open === 'typed' && <Typed onAdd={(window) => onChange(added(windows, window))} />}
      {open === 'drawn' && (
        <div>
          <p className="mb-2 text-[14px] text-soft">{say('window.draw-how')}</p>
          <Drawn windows={windows} today={today} onChange={onChange} />
        </div>
      )}
    </fieldset>
  )
}

/** One more window; the same twice is one. */
const added = (windows: readonly WaitingWindow[], window: WaitingWindow): WaitingWindow[] => {
  const words = windowWords(window)
  return windows.some((one) => windowWords(one) === words) ? [...windows] : [...windows, window]
}

function Typed({ onAdd }: { onAdd: (window: WaitingWindow) => void }) {
  const id = useId()
  const [from, setFrom] = useState('')
  const [to, setTo] = useState('')
  const [after, setAfter] = useState('')
  const [before, setBefore] = useState('')
  const [days, setDays] = useState<Weekday[]>([])
  const turned = (from !== '' && to !== '' && to < from) || (after !== '' && before !== '' && before <= after)
  const add = (): void => {
    if (turned) return
    onAdd({
      ...(from ? { from: from as LocalDate } : {}),
      ...(to ? { to: to as LocalDate } : {}),
      ...(days.length > 0 ? { weekdays: days } : {}),
      ...(after ? { after: after as WallTime } : {}),
      ...(before ? { before: before as WallTime } : {}),
    })
    setFrom('')
    setTo('')
    setAfter('')
    setBefore('')
    setDays([])
  }
  const field = (name: string, type: 'date' | 'time', value: string, set: (value: string) => void) => (
    <label className="grid gap-1" htmlFor={`${id}-${name}`}>
      <span className="ask">{name}</span>
      <input
        id={`${id}-${name}`}
        className="field"
        type={type}
        value={value}
        aria-invalid={turned || undefined}
        aria-describedby={turned ? `${id}-turned` : undefined}
        onChange={(event) => set(event.target.value)}
      />
    </label>
  )
  return (
    <div className="grid gap-3 rounded-lg border border-line p-3">
      <div className="grid gap-3 sm:grid-cols-2">
        {field(say('window.date-from'), 'date', from, setFrom)}
        {field(say('window.date-to'), 'date', to, setTo)}
        {field(say('window.time-from'), 'time', after, setAfter)}
        {field(say('window.time-to'), 'time', before, setBefore)}
      </div>
      <fieldset>
        <legend className="ask mb-1">{say('window.weekdays')}</legend>
        <div className="flex flex-wrap gap-x-4">
          {WEEKDAYS.map((day) => (
            <label key={day} className="flex min-h-[44px] cursor-pointer items-center gap-2">
              <input
                type="checkbox"
                className="checkbox checkbox-primary"
                checked={days.includes(day)}
                aria-label={longWeekdayName(day)}
                onChange={() =>
                  setDays(days.includes(day) ? days.filter((one) => one !== day) : [...days, day].sort())
                }
              />
              {weekdayName(day)}
            </label>
          ))}
        </div>
      </fieldset>
      {turned && (
        <p id={`${id}-turned`} className="font-semibold text-clay" role="alert">
          {say('window.turned')}
        </p>
      )}
      <button type="button" className="press press-quiet justify-self-start" disabled={turned} onClick={add}>
        {say('window.add')}
      </button>
    </div>
  )
}

/** Whether a window is about one date and times in it: such a one can be drawn. */
const isDrawn = ({ from, to, weekdays, after, before }: WaitingWindow): boolean =>
  from !== undefined && from === to && !weekdays && after !== undefined && before !== undefined

function Drawn({
  windows,
  today,
  onChange,
}: {
  windows: readonly WaitingWindow[]
  today: LocalDate
  onChange: (windows: WaitingWindow[]) => void
}) {
  const others = windows.filter((window) => !isDrawn(window))
  return (
    <div>
      <HourMarks from={0} to={1_440} every={180} className="sm:ml-[96px]" />
      <ul className="grid gap-2">
        {Array.from({ length: DRAWN }, (_, nth) => {
          const date = addDays(today, nth)
          const here = windows.filter((window) => isDrawn(window) && window.from === date)
          const rest = windows.filter((window) => !here.includes(window))
          // What is said of many days lies under it as an outline.
          const ghost = others.filter((window) => partOn(window, date))
          return (
            <li key={date} className="sm:grid sm:grid-cols-[88px_1fr] sm:items-center sm:gap-2">
              <span className="figures text-[13px] text-soft">{shortDate(date)}</span>
              <HoursBand
                name={shortDate(date)}
                said={{
                  draw: (name) => say('window.drawn', { name }),
                  stretch: (name, from, to) => say('window.stretch', { name, from, to }),
                }}
                blocks={here.map(({ after, before }) => ({ from: after!, to: before! }))}
                ghostCounts
                ghost={ghost.map(({ after, before }) => ({
                  from: after ?? ('00:00' as WallTime),
                  to: before ?? ('24:00' as WallTime),
                }))}
                onChange={(blocks) =>
                  onChange([
                    ...rest,
                    ...blocks.map(
                      ({ from, to }): WaitingWindow => ({ from: date, to: date, after: from, before: to }),
                    ),
                  ])
                }
              />
            </li>
          )
        })}
      </ul>
    </div>
  )
}
