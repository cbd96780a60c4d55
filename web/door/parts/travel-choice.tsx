import type { DoorService } from '@acolhida/core/contract'
import { money } from '@acolhida/core/money'
import { type TravelZone, travelZoneAt } from '@acolhida/core/practice'
import { useState } from 'react'
import { Link } from 'react-router'
import { useDoor, useSlug } from '../visit/follow.ts'
import { fillIn, fillingOf, useVisit } from '../visit/visit.ts'
import { Notice } from './notice.tsx'
import { say } from './say.ts'

/** Where the practitioner should come: chosen from a list, or found by postal code. Farther away, one writes. */
export function TravelChoice({ service, zones }: { service: DoorService; zones: readonly TravelZone[] }) {
  const slug = useSlug()
  const { currency } = useDoor()
  const { travel } = fillingOf(useVisit(), service.id)
  const [code, setCode] = useState('')
  const [farther, setFarther] = useState(false)
  const choose = (id: string | undefined): void => {
    setFarther(id === undefined)
    fillIn(service.id, { is: 'travels', travel: id })
  }
  const byCode = zones.some((zone) => zone.postalCodes.length > 0)
  return (
    <fieldset className="sheet mb-4 p-4">
      <legend className="sr-only">{say('travel')}</legend>
      <p className="ask mb-1" aria-hidden="true">
        {say('travel')}
      </p>
      {byCode && (
        <label className="mb-2 flex flex-wrap items-center gap-3">
          {say('travel.code')}
          <input
            className="field w-36"
            autoComplete="postal-code"
            value={code}
            onChange={(event) => {
              setCode(event.target.value)
              if (event.target.value.trim().length >= 3) choose(travelZoneAt(zones, event.target.value)?.id)
            }}
          />
        </label>
      )}
      {zones.map((zone) => (
        <label key={zone.id} className="flex min-h-[44px] cursor-pointer items-center gap-3">
          <input
            type="radio"
            className="radio radio-primary"
            name="travel"
            checked={travel === zone.id}
            onChange={() => choose(zone.id)}
          />
          <span className="flex-1">{zone.name}</span>
          {zone.surcharge > 0 && (
            <span className="figures text-[14px] text-soft">
              {say('travel.price', { price: money(zone.surcharge, currency) })}
            </span>
          )}
        </label>
      ))}
      <label className="flex min-h-[44px] cursor-pointer items-center gap-3">
        <input
          type="radio"
          className="radio radio-primary"
          name="travel"
          checked={farther}
          onChange={() => choose(undefined)}
        />
        {say('travel.farther')}
      </label>
      {farther && (
        <Notice tone="info">
          {say('travel.talk')}{' '}
          <Link className="way" to={`/${slug}/write?about=${service.id}`}>
            {say('travel.write')}
          </Link>
        </Notice>
      )}
    </fieldset>
  )
}
