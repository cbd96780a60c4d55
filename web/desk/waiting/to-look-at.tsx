import { useMinute } from '../../relay-client/clock.ts'
import type { Desk } from '../data/live.ts'
import { ActButton } from '../parts/act.tsx'
import { serviceName } from '../parts/words.ts'
import { doInLine } from '../sync/acts.ts'
import { type InLine, inLineNow } from './use-waiting.ts'

/** Those in line at whom the rules look first, so that what they take needs no second word. */
export function ToLookAt({ desk: { practice }, waiting }: { desk: Desk; waiting: InLine }) {
  const now = useMinute()
  const rows = inLineNow(waiting.lines, now).filter(({ line }) => !line.looked)
  if (rows.length === 0) return null
  return (
    <section className="sheet p-5" aria-label="To be looked at">
      <h2>To be looked at</h2>
      <p className="mt-1 text-[14px] text-soft">
        Your rules look first at people like them. Say now that they fit, and a freed time is theirs when they
        take it; otherwise it becomes a request.
      </p>
      <ul className="mt-2 grid gap-2">
        {rows.map(({ id, service, line }) => (
          <li key={id} className="flex flex-wrap items-center justify-between gap-2">
            <span>
              {line.joined.person.name}, {serviceName(practice, service)}
            </span>
            <ActButton className="press" onAct={() => doInLine(id, { do: 'look' })}>
              They fit<span className="sr-only">: {line.joined.person.name}</span>
            </ActButton>
          </li>
        ))}
      </ul>
    </section>
  )
}
