import { type Duration, dateAt, duration, durationWords, zone } from '@acolhida/core/time'
import type { LineWishes } from '@acolhida/core/waiting'
import { useId } from 'react'
import { say as fieldWord } from '../../questions/say.ts'
import { WindowsEdit } from '../../questions/windows-edit.tsx'
import { relayNow } from '../../relay-client/clock.ts'
import { say } from './say.ts'

/** At how short notice one can say that one could come. */
const NOTICES: readonly Duration[] = ['PT2H', 'PT4H', 'PT12H', 'P1D', 'P2D', 'P7D'].map((iso) =>
  duration(iso),
)

/** When one could come, at how short notice, and how one wants to hear of it. */
export function LineWishesFields({
  wishes,
  zoneName,
  onChange,
}: {
  wishes: LineWishes
  /** By whose clock windows count: an IANA name. */
  zoneName: string
  onChange: (wishes: LineWishes) => void
}) {
  const id = useId()
  const { notice, by, ...rest } = wishes
  return (
    <div className="sheet grid gap-4 p-4">
      <WindowsEdit
        windows={wishes.windows}
        today={dateAt(zone(zoneName), relayNow())}
        onChange={(windows) => onChange({ ...wishes, windows })}
      />
      <label className="grid gap-1" htmlFor={`${id}-notice`}>
        <span className="ask">{fieldWord('window.notice')}</span>
        <select
          id={`${id}-notice`}
          className="field max-w-[260px]"
          value={notice ?? NOTICES[0]}
          onChange={({ target: { value } }) =>
            onChange({
              ...rest,
              ...(by ? { by } : {}),
              ...(value === NOTICES[0] ? {} : { notice: value as Duration }),
            })
          }
        >
          {NOTICES.map((option) => (
            <option key={option} value={option}>
              {durationWords(option)}
            </option>
          ))}
        </select>
      </label>
      <fieldset>
        <legend className="ask mb-1">{say('wait.by')}</legend>
        {(['email', 'text'] as const).map((way) => (
          <label key={way} className="flex min-h-[44px] cursor-pointer items-center gap-2">
            <input
              type="radio"
              className="radio radio-primary"
              name={`${id}-by`}
              checked={(by === 'text') === (way === 'text')}
              onChange={() =>
                onChange({
                  ...rest,
                  ...(notice ? { notice } : {}),
                  ...(way === 'text' ? { by: 'text' as const } : {}),
                })
              }
            />
            {say(way === 'text' ? 'wait.by-text' : 'wait.by-mail')}
          </label>
        ))}
      </fieldset>
    </div>
  )
}
