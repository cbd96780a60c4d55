import type { DoorService } from '@acolhida/core/contract'
import { money } from '@acolhida/core/money'
import { useDoor } from '../visit/follow.ts'
import { fillIn, fillingOf, useVisit } from '../visit/visit.ts'
import { say } from './say.ts'

/** What can be added, each with what it comes to. */
export function Extras({ service }: { service: DoorService }) {
  const { currency } = useDoor()
  const { extras = [] } = fillingOf(useVisit(), service.id)
  return (
    <fieldset className="sheet mt-3 p-4 sm:p-5">
      <legend className="sr-only">{say('extras')}</legend>
      <p className="ask" aria-hidden="true">
        {say('extras')} <span className="ml-1 text-[13px] font-normal text-soft">{say('optional')}</span>
      </p>
      {service.extras.map((extra) => (
        <label
          key={extra.id}
          className="flex min-h-[44px] cursor-pointer items-center gap-3 rounded-lg px-2 hover:bg-leaf-soft/50"
        >
          <input
            type="checkbox"
            className="checkbox checkbox-primary"
            checked={extras.includes(extra.id)}
            onChange={(event) =>
              fillIn(service.id, {
                is: 'added',
                extras: event.target.checked
                  ? [...extras, extra.id]
                  : extras.filter((other) => other !== extra.id),
              })
            }
          />
          <span className="flex-1">{extra.name}</span>
          <span className="figures text-[14px] text-soft">
            {[
              extra.minutes > 0 ? say('extras.minutes', { minutes: extra.minutes }) : '',
              extra.price > 0 ? say('extras.price', { price: money(extra.price, currency) }) : '',
            ]
              .filter(Boolean)
              .join(' · ')}
          </span>
        </label>
      ))}
    </fieldset>
  )
}
