import { type Ask, type Asker, newClient, openStarts } from '@acolhida/core/openings'
import { placeOf, questionnaireOf, serviceOf, zoneOf } from '@acolhida/core/practice'
import { leastLength } from '@acolhida/core/questions/least'
import {
  type DayNumber,
  dateAt,
  type Instant,
  localDate,
  MINUTE,
  time,
  timeAt,
  wallTime,
} from '@acolhida/core/time'
import type { WaitingWindow } from '@acolhida/core/waiting'
import { ChevronLeft, ChevronRight } from 'lucide-react'
import { lazy, Suspense, useMemo, useState } from 'react'
import { useSearchParams } from 'react-router'
import { useMinute } from '../../relay-client/clock.ts'
import { undoChange } from '../data/change.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { useTaken } from '../data/taken.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { homeZone } from '../parts/words.ts'
import { Bands } from './bands.tsx'
import { BookIn } from './book-in.tsx'
import { RulesCost } from './cost.tsx'
import { OpenStarts } from './day-to-pick.tsx'
import { List } from './list.tsx'
import { dayFrom, firstDay, spanName, VIEWS, type View, viewFrom } from './span.ts'

const PutInLine = lazy(async () => ({ default: (await import('../waiting/put-in-line.tsx')).PutInLine }))

/** For whom the openings are laid over. */
const ASKERS: Record<string, { name: string; asker: (service: string) => Asker }> = {
  new: { name: 'a newcomer', asker: () => newClient },
  known: {
    name: 'somebody I know',
    asker: (service) => ({ ...newClient, standing: 'known', invited: [service] }),
  },
  me: { name: 'me', asker: () => ({ ...newClient, who: 'practitioner' }) },
}

/** The diary as day bands or a list, with the openings of a service laid over. */
export function DiaryPage() {
  const desk = useDesk()
  const minute = useMinute()
  const { practice } = desk
  const [search, setSearch] = useSearchParams()
  const [entering, setEntering] = useState<Instant>()
  const [kept, setKept] = useState<{ said: string; from: Instant; to: Instant }>()
  const [waits, setWaits] = useState<WaitingWindow>()
  const act = useAct()
  /** Somebody waits for what was drawn: it is kept for nobody, and they are put in line for it. */
  const waitsFor = (from: Instant, to: Instant): void => {
    const home = homeZone(practice)
    const date = dateAt(home, from)
    setKept(undefined)
    setWaits({
      ...{ from: date, to: date, after: wallTime(home.toWall(from).ms / MINUTE) },
      before: dateAt(home, to) === date ? wallTime(home.toWall(to).ms / MINUTE) : time('24:00'),
    })
  }
  const view = viewFrom(search.get('view'))
  const service = serviceOf(practice, search.get('service') ?? '') ?? practice.services[0]
  const place = service?.places.find((place) => place === search.get('place')) ?? service?.places[0]
  const asked = search.get('for') ?? 'new'
  const who = (Object.hasOwn(ASKERS, asked) ? ASKERS[asked] : undefined) ?? ASKERS.new!
  const where = service ? zoneOf(practice, placeOf(practice, place!)) : homeZone(practice)
  const today = where.toWall(minute).day
  const { days } = VIEWS[view]
  const first = firstDay(view, dayFrom(search.get('day')) ?? today, practice.profile.weekStart)
  const from = where.toInstant(first, 0)
  const to = where.toInstant((first + days) as DayNumber, 0)
  const taken = useTaken(desk, from, to)
  const length = service ? leastLength(service, questionnaireOf(practice, service)) : 0
  const ask = useMemo<Ask | undefined>(
    () =>
      service && {
        service,
        place: place!,
        minutes: length,
        asker: who.asker(service.id),
        now: minute,
      },
    [service, place, who, minute, length],
  )
  const starts = useMemo(
    () => (ask && taken ? openStarts(practice, taken.diary, ask, localDate(first), days) : []),
    [practice, taken, ask, first, days],
  )
  const set = (name: string, value: string): void => {
    search.set(name, value)
    setSearch(search)
  }
  const step = view === 'day' ? 1 : view === 'week' ? 7 : 28
  const go = (day: number): void => set('day', localDate(day as DayNumber))
  const unit = view === 'day' ? 'day' : view === 'week' ? 'week' : 'four weeks'
  return (
    <>
      <title>Diary · Acolhida</title>
      <header className="flex flex-wrap items-center justify-between gap-4">
        <h1>{spanName(first, days)}</h1>
        <div className="flex flex-wrap gap-2.5">
          <fieldset className="join">
            <legend className="sr-only">How much is shown</legend>
            {(Object.keys(VIEWS) as View[]).map((choice) => (
              <button
                key={choice}
                type="button"
                aria-pressed={choice === view}
                className={`press join-item -ml-px ${choice === view ? 'press-go' : ''}`}
                onClick={() => set('view', choice)}
              >
                {VIEWS[choice].name}
              </button>
            ))}
          </fieldset>
          <button
            type="button"
            className="press px-2.5"
            aria-label={`The ${unit} before`}
            onClick={() => go(first - step)}
          >
            <ChevronLeft size={18} aria-hidden="true" />
          </button>
          <button type="button" className="press" onClick={() => go(today)}>
            Today
          </button>
          <button
            type="button"
            className="press px-2.5"
            aria-label={`The ${unit} after`}
            onClick={() => go(first + step)}
          >
            <ChevronRight size={18} aria-hidden="true" />
          </button>
          <button
            type="button"
            className="press press-go"
            onClick={() => setEntering(starts.find((start) => start >= minute) ?? minute)}
          >
            Book somebody in
          </button>
        </div>
      </header>
      <div className="mt-3.5 mb-2 flex flex-wrap items-center gap-3 text-[14px] text-soft">
        <span aria-hidden="true">Openings</span>
        <select
          aria-label="Openings for"
          className="field min-h-[34px] w-auto py-1 font-semibold"
          value={Object.keys(ASKERS).find((key) => ASKERS[key] === who)}
          onChange={(event) => set('for', event.target.value)}
        >
          {Object.entries(ASKERS).map(([key, { name }]) => (
            <option key={key} value={key}>
              for {name}
            </option>
          ))}
        </select>
        <span aria-hidden="true">of</span>
        <select
          aria-label="Service"
          className="field min-h-[34px] w-auto py-1 font-semibold"
          value={service?.id}
          onChange={(event) => set('service', event.target.value)}
        >
          {practice.services.map((service) => (
            <option key={service.id} value={service.id}>
              {service.name} · {service.minutes} min
            </option>
          ))}
        </select>
        {service && service.places.length > 1 && (
          <select
            className="field min-h-[34px] w-auto py-1 font-semibold"
            aria-label="Where"
            value={place}
            onChange={(event) => set('place', event.target.value)}
          >
            {service.places.map((choice) => (
              <option key={choice} value={choice}>
                {placeOf(practice, choice)?.name}
              </option>
            ))}
          </select>
        )}
        <span role="status">
          {starts.length} {starts.length === 1 ? 'start' : 'starts'} · all times{' '}
          {where.name.split('/').at(-1)?.replaceAll('_', ' ')}
        </span>
      </div>
      {!taken && <div className="min-h-[60dvh]" aria-busy="true" />}
      {view === 'list' && taken && (
        <List practice={practice} taken={taken} from={from} to={to} where={where} />
      )}
      {view !== 'list' && taken && service && ask && (
        <Bands
          desk={desk}
          taken={taken}
          ask={ask}
          starts={starts}
          first={first}
          days={days}
          where={where}
          onEnter={setEntering}
          onKept={(said, from, to) => setKept({ said, from, to })}
        />
      )}
      {view === 'day' && taken && service && (
        <section aria-label="Open starts of this day" className="mt-3">
          <OpenStarts
            starts={starts}
            chosen={undefined}
            name={(at) => timeAt(where, at)}
            none={`Nothing is open ${who.name === 'me' ? 'for you' : `for ${who.name}`} on this day.`}
            onChoose={setEntering}
          />
        </section>
      )}
      {ask && taken && (
        <RulesCost practice={practice} diary={taken.diary} ask={ask} from={localDate(first)} days={days} />
      )}
      <p role="status" className={kept ? 'mt-3 flex items-center gap-3 text-[14px]' : 'sr-only'}>
        {kept && (
          <>
            {kept.said}
            <button
              type="button"
              className="press"
              onClick={() =>
                act.run(
                  () => undoChange(db),
                  () => setKept(undefined),
                )
              }
            >
              Undo
            </button>
            <button
              type="button"
              className="press"
              onClick={() =>
                act.run(
                  () => undoChange(db),
                  () => waitsFor(kept.from, kept.to),
                )
              }
            >
              No, somebody waits for it…
            </button>
          </>
        )}
      </p>
      <ProblemNote of={act} />
      {waits && (
        <Suspense>
          <PutInLine desk={desk} windows={[waits]} service={service?.id} close={() => setWaits(undefined)} />
        </Suspense>
      )}
      {entering !== undefined && service && (
        <BookIn desk={desk} service={service.id} at={entering} close={() => setEntering(undefined)} />
      )}
    </>
  )
}
