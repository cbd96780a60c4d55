import { placeName } from '@acolhida/core/messages'
import { useId, useState } from 'react'
import { setZone, useVisit } from '../visit/visit.ts'

/** Says in whose zone the times are, and lets the client be somewhere else. */
export function ZoneChoice({ home }: { home: string }) {
  const { zone } = useVisit()
  const [open, setOpen] = useState(false)
  const id = useId()
  const zones = Intl.supportedValuesOf('timeZone')
  const listed = zones.includes(zone) ? zones : [zone, ...zones]
  return (
    <div className="mt-2 mb-4 text-[14px] text-soft">
      Times are yours, in <strong className="text-ink">{placeName(zone)}</strong>.{' '}
      {!open && (
        <button type="button" className="way min-h-[28px]" onClick={() => setOpen(true)}>
          I am somewhere else
        </button>
      )}
      {open && (
        <div className="mt-2 flex flex-wrap items-center gap-2">
          <label htmlFor={id} className="font-semibold text-ink">
            Where you are
          </label>
          <select
            id={id}
            className="field w-auto"
            value={zone}
            onChange={(event) => setZone(event.target.value)}
          >
            {listed.map((name) => (
              <option key={name} value={name}>
                {name.replaceAll('_', ' ')}
              </option>
            ))}
          </select>
          {zone !== home && (
            <button type="button" className="way min-h-[28px]" onClick={() => setZone(home)}>
              As in {placeName(home)}
            </button>
          )}
        </div>
      )}
    </div>
  )
}
