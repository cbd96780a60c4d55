import type { TrialBody } from '@acolhida/core/contract'
import { instantOf, type LocalDateTime, moment } from '@acolhida/core/time'
import { useEffect, useRef, useState } from 'react'
import { useDesk } from '../data/live.ts'
import { DateField, TimeField } from '../parts/date-field.tsx'
import { homeZone } from '../parts/words.ts'
import { zonesWith } from '../settings/choices.ts'
import { deskRelay } from '../sync/relay.ts'
import { useStanding, useUnpublished } from '../sync/standing.ts'

const FRAMES = { phone: 'On a phone', wide: 'On a wide screen' } as const

/** The door as a client sees it: as whom, when, from where, on what. What is booked here leaves no trace. */
export function TryIt() {
  const { practice, connection } = useDesk()
  const standing = useStanding()
  const unpublished = useUnpublished()
  const home = homeZone(practice)
  const [as, setAs] = useState<TrialBody['as']>('new')
  const [day, setDay] = useState('')
  const [time, setTime] = useState('09:00')
  const at = day && /^\d\d:\d\d$/.test(time) ? `${day}T${time}` : ''
  const [zone, setZone] = useState(home.name)
  const [frame, setFrame] = useState<keyof typeof FRAMES>('phone')
  const [url, setUrl] = useState<string>()
  const [problem, setProblem] = useState<string>()
  const [turn, setTurn] = useState(0)
  const { key } = connection
  const latest = useRef(0)

  // biome-ignore lint/correctness/useExhaustiveDependencies: another turn begins the same trial afresh
  useEffect(() => {
    if (!key || standing !== 'connected' || unpublished) return
    const mine = ++latest.current
    const begin = async (): Promise<void> => {
      try {
        const body: TrialBody = { as, ...(at ? { at: instantOf(home, at as LocalDateTime) } : {}) }
        const opened = await deskRelay.trial(body, key)
        if (mine !== latest.current) return
        setUrl(`${opened.url}?zone=${encodeURIComponent(zone)}`)
        setProblem(undefined)
      } catch (error) {
        if (mine === latest.current) setProblem((error as Error).message)
      }
    }
    void begin()
  }, [key, standing, unpublished, as, at, zone, turn, home])

  return (
    <>
      <title>Try it · Acolhida</title>
      <h1>Try it</h1>
      <p className="mt-1 mb-4 max-w-[640px] text-[14px] text-soft">
        Your door as a client sees it. What you book here keeps no time, writes to nobody, and is forgotten.
      </p>
      <div className={frame === 'phone' ? 'flex flex-wrap gap-8' : ''}>
        <div
          className={
            frame === 'phone'
              ? 'grid h-fit w-[300px] gap-4'
              : 'mb-4 grid max-w-[1000px] grid-cols-4 items-end gap-3'
          }
        >
          <label className="ask">
            As
            <select
              className="field mt-1"
              value={as}
              onChange={(event) => setAs(event.target.value as TrialBody['as'])}
            >
              <option value="new">a newcomer</option>
              <option value="known">somebody I know, invited to everything</option>
            </select>
          </label>
          <DateField
            label={
              <>
                As if it were <span className="font-normal text-soft">empty: now</span>
              </>
            }
            value={day}
            onChange={setDay}
          />
          {day && <TimeField label="At" value={time} onChange={setTime} />}
          <label className="ask">
            From
            <select className="field mt-1" value={zone} onChange={(event) => setZone(event.target.value)}>
              {zonesWith(zone).map(({ value, name }) => (
                <option key={value} value={value}>
                  {name}
                </option>
              ))}
            </select>
          </label>
          <label className="ask">
            On
            <select
              className="field mt-1"
              value={frame}
              onChange={(event) => setFrame(event.target.value as keyof typeof FRAMES)}
            >
              {Object.entries(FRAMES).map(([value, name]) => (
                <option key={value} value={value}>
                  {name.replace('On ', '')}
                </option>
              ))}
            </select>
          </label>
          <button type="button" className="press justify-self-start" onClick={() => setTurn(turn + 1)}>
            Begin again
          </button>
          {at && (
            <p className="text-[14px] text-soft">
              Every rule counts as on {moment(instantOf(home, at as LocalDateTime), home)}; what is taken is
              what is taken now.
            </p>
          )}
          {standing !== 'connected' && (
            <p role="status" className="note bg-sun-soft text-sun-ink">
              The door can be tried while this desk and the relay are in step.
            </p>
          )}
          {problem && (
            <p role="alert" className="font-semibold text-clay">
              {problem}
            </p>
          )}
        </div>
        {url && (
          <iframe
            key={url}
            title="Your door, to try"
            src={url}
            className={
              frame === 'phone'
                ? 'h-[min(844px,calc(100dvh-150px))] w-[390px] max-w-full rounded-[26px] border-8 border-ink bg-paper'
                : 'h-[calc(100dvh-250px)] min-h-[420px] w-full rounded-xl border-2 border-line bg-paper'
            }
          />
        )}
      </div>
    </>
  )
}
