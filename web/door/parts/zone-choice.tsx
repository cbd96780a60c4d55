import { type Clocks, zonePlace } from '@acolhida/core/time'
import { useId, useState } from 'react'
import { setZone, useVisit } from '../visit/visit.ts'
import { rich, say } from './say.ts'

/** Says by whose clock the times are, and lets the client be somewhere else. */
export function ZoneChoice({ home, clocks, differs }: { home: string; clocks: Clocks; differs: boolean }) {
  const { zone } = useVisit()
  const [open, setOpen] = useState(false)
  const id = useId()
  const zones = Intl.supportedValuesOf('timeZone')
  const listed = zones.includes(zone) ? zones : [zone, ...zones]
  const place = zonePlace(clocks.first.name)
  const yours = zonePlace(zone)
  const named = {
    place: <strong className="text-ink">{place}</strong>,
    yours: <strong className="text-ink">{yours}</strong>,
  }
  return (
    <div className="mt-2 mb-4 text-[14px] text-soft">
      {clocks.also ? rich(differs ? 'zone.both' : 'zone.place', named) : rich('zone.yours', named)}{' '}
      {!open && (
        <button type="button" className="way min-h-[28px]" onClick={() => setOpen(true)}>
          {say('zone.elsewhere')}
        </button>
      )}
      {open && (
        <div className="mt-2 flex flex-wrap items-center gap-2">
          <label htmlFor={id} className="font-semibold text-ink">
            {say('zone.where')}
          </label>
          <select
            id={id}
            className="field w-auto max-w-full"
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
              {say('zone.as', { place: zonePlace(home) })}
            </button>
          )}
        </div>
      )}
    </div>
  )
}
