import { money } from '@acolhida/core/money'
import { closureWords, makeDiary } from '@acolhida/core/openings'
import { serviceOf, waitlistOf } from '@acolhida/core/practice'
import { type Instant, moment, span, timeAt } from '@acolhida/core/time'
import {
  chooseAmong,
  type FillBy,
  type Filled,
  type Freed,
  preferenceOf,
  whoCould,
} from '@acolhida/core/waiting'
import { useMemo } from 'react'
import { newKey } from '../../relay-client/client.ts'
import { useMinute } from '../../relay-client/clock.ts'
import type { Desk } from '../data/live.ts'
import type { FreedRow, LineRow } from '../data/tables.ts'
import type { Taken } from '../data/taken.ts'
import { ActButton } from '../parts/act.tsx'
import { counted, currencyOf, homeZone, serviceName } from '../parts/words.ts'
import { doWithFreed } from '../sync/acts.ts'
import { PREFERS } from './fill-settings.ts'
import { askerBy, type InLine, waitingIn } from './use-waiting.ts'

/** Why a time has come free. */
const CAUSE: Record<FreedRow['freed']['cause'], string> = {
  cancelled: 'a session was cancelled',
  moved: 'a session was moved',
  lapsed: 'a request ran out',
  declined: 'a request was turned down',
  withdrawn: 'a request was withdrawn',
  hours: 'there are more hours now',
  calendar: 'another calendar has let it go',
  seats: 'there are more seats now',
  'by-hand': 'you offer it by hand',
}

/** A time that is free just now: whom it is held out to, who is next and why others are not, and what one can do. */
export function FreedCard({
  desk,
  taken,
  waiting,
  row: { id, freed },
}: {
  desk: Desk
  taken: Taken
  waiting: InLine
  row: FreedRow
}) {
  const { practice } = desk
  const now = useMinute()
  const home = homeZone(practice)
  const { lines } = waiting
  const held = useMemo(() => lines.filter(({ line }) => line.offer?.freed === id), [lines, id])
  const list = waitlistOf(freed.service === undefined ? undefined : serviceOf(practice, freed.service))
  const ask = freed.go ?? list.ask
  /** Those who could still be asked, by what is set; what fills it best; and why everybody else is not. */
  const found = useMemo(() => {
    const by: FillBy = {
      ...preferenceOf(list),
      askerOf: askerBy(waiting, practice, now),
      now,
      meets: true,
      most: 20_000,
    }
    // What is held of it now is free for whoever is next.
    const own = new Set(held.map((row) => `held-out-${row.id}`))
    const diary = makeDiary(
      practice,
      taken.diary.entries.filter((entry) => !own.has(entry.id)),
    )
    const could = whoCould(practice, diary, waitingIn(practice, waiting, now, freed), freed, by)
    return {
      ...could,
      next: chooseAmong(practice, could.able, by),
      fullest: chooseAmong(practice, could.able, { ...by, prefer: 'fullest' }),
    }
  }, [held, waiting, practice, taken, now, freed, list])
  const nameOf = (line: string): string =>
    lines.find((row) => row.id === line)?.line.joined.person.name ?? 'somebody'
  const cash = (amount: number): string => money(amount, currencyOf(practice.profile.currency))
  const first = new Set(found.next.chosen.map(({ waiting: one }) => one.id))
  const inOrder = [
    ...found.next.chosen.map(({ waiting: one, start }) => ({ id: one.id, start })),
    ...found.able
      .filter(({ waiting: one }) => !first.has(one.id))
      .map(({ waiting: one, starts }) => ({ id: one.id, start: starts[0]! })),
  ]
  return (
    <li className="sheet grid gap-3 p-5">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h3 className="serif text-[19px]">
          {moment(freed.from, home)} – {timeAt(home, freed.to)}
        </h3>
        <span className="tag tag-look">Free: {CAUSE[freed.cause]}</span>
      </div>
      {held.length > 0 && (
        <ul className="grid gap-1">
          {held.map(({ id: line, line: { offer } }) => (
            <li
              key={line}
              className="flex flex-wrap items-center justify-between gap-2 border-l-[3px] border-dashed border-sun pl-3"
            >
              <span>
                Held for <b>{nameOf(line)}</b>,{' '}
                {span(offer!.start, (offer!.start + offer!.minutes * 60_000) as Instant, home)}, until{' '}
                {moment(offer!.until, home)}
              </span>
              <ActButton className="press press-quiet" onAct={() => doWithFreed(id, { do: 'skip', line })}>
                {`Not for ${nameOf(line)}`}
              </ActButton>
            </li>
          ))}
        </ul>
      )}
      <p className="text-[14px]">
        {ask === 'none'
          ? 'Nobody is asked until you say so; until then it is open to all.'
          : held.length > 0
            ? inOrder.length > 0
              ? `If it is not taken it goes on: ${PREFERS[list.prefer]} first.`
              : 'If it is not taken, nobody else is left to ask, and it is open to all.'
            : 'Nobody is asked just now.'}
      </p>
      {inOrder.length > 0 && (
        <ol className="grid gap-1.5" aria-label="Who could have it">
          {inOrder.map(({ id: line, start }) => (
            <li key={line} className="flex flex-wrap items-center justify-between gap-2">
              <span>
                {nameOf(line)}, {serviceName(practice, serviceOfLine(lines, line))}, {timeAt(home, start)}
              </span>
              <span className="flex flex-wrap gap-1.5">
                <ActButton className="press" onAct={() => doWithFreed(id, { do: 'offer', line, start })}>
                  {`Offer ${timeAt(home, start)}`}
                  <span className="sr-only"> to {nameOf(line)}</span>
                </ActButton>
                {lines.find((row) => row.id === line)?.line.joined.instead === undefined && (
                  <ActButton
                    className="press"
                    onAct={() => doWithFreed(id, { do: 'book', line, start, booking: newKey() })}
                  >
                    Book<span className="sr-only"> {nameOf(line)}</span>
                  </ActButton>
                )}
                <ActButton className="press press-quiet" onAct={() => doWithFreed(id, { do: 'skip', line })}>
                  Leave out<span className="sr-only"> {nameOf(line)}</span>
                </ActButton>
              </span>
            </li>
          ))}
        </ol>
      )}
      {found.fullest.chosen.length > 0 && (
        <p className="text-[14px] text-soft">
          {`Fullest: ${found.fullest.chosen.map(({ waiting: one, start }) => `${nameOf(one.id)} at ${timeAt(home, start)}`).join(', ')}, worth ${cash(found.fullest.value)}`}
          {found.fullest.proven ? '' : `; no choice is worth more than ${cash(found.fullest.bound)}`}
          {list.prefer === 'fullest' ? '.' : `; by what is set, ${cash(found.next.value)}.`}
        </p>
      )}
      <WhyNot desk={desk} others={found.others} nameOf={nameOf} freed={freed} />
      <div className="flex flex-wrap gap-2">
        {ask === 'none' && inOrder.length > 0 && (
          <>
            <ActButton className="press press-go" onAct={() => doWithFreed(id, { do: 'go', ask: 1 })}>
              {`Ask ${nameOf(inOrder[0]!.id)}`}
            </ActButton>
            <ActButton className="press" onAct={() => doWithFreed(id, { do: 'go', ask: 'all' })}>
              Ask everybody
            </ActButton>
          </>
        )}
        <ActButton className="press press-no" onAct={() => doWithFreed(id, { do: 'stop' })}>
          Stop: leave it open to all
        </ActButton>
      </div>
    </li>
  )
}

const serviceOfLine = (lines: readonly LineRow[], id: string): string =>
  lines.find((row) => row.id === id)?.service ?? ''

/** Why the others are not asked, one by one. */
function WhyNot({
  desk: { practice },
  others,
  nameOf,
  freed,
}: {
  desk: Desk
  others: Filled['others']
  nameOf: (line: string) => string
  freed: Freed
}) {
  const { skipped } = freed
  const home = homeZone(practice)
  if (others.length === 0 && skipped.length === 0) return null
  const words = (other: Filled['others'][number]): string => {
    switch (other.why) {
      case 'not-for-them':
        return 'what they wait for is not offered any more'
      case 'too-short':
        return 'it is too short for their session'
      case 'windows':
        return 'they can’t come then'
      case 'notice':
        return 'it is too near for them'
      case 'others':
        return 'somebody else has it'
      case 'closed':
        return other.closures
          .map((closure) =>
            closureWords(closure, {
              practice,
              start: other.start ?? freed.from,
              minutes: other.waiting.minutes,
              zone: home,
              nameOf: () => 'something else',
            }),
          )
          .join(' ')
    }
  }
  return (
    <details>
      <summary className="way cursor-pointer text-[14px]">
        {counted(others.length + skipped.length, 'other is not asked', 'others are not asked')}, and why
      </summary>
      <ul className="mt-1 grid gap-1 text-[14px]">
        {others.map((other) => (
          <li key={other.waiting.id}>
            {nameOf(other.waiting.id)}: {words(other)}
          </li>
        ))}
        {skipped.map((line) => (
          <li key={line} className="flex flex-wrap items-center gap-2">
            {nameOf(line)}: you have left them out
            <ActButton
              className="press press-quiet"
              onAct={() => doWithFreed(freed.id, { do: 'skip', line, back: true })}
            >
              Ask them again
            </ActButton>
          </li>
        ))}
      </ul>
    </details>
  )
}
