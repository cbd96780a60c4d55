import type { CalendarState } from '@acolhida/core/contract'
import { writeBookings } from '@acolhida/core/formats/calendars'
import type { Practice, Subscription } from '@acolhida/core/practice'
import { lengthOf } from '@acolhida/core/time'
import { Plus } from 'lucide-react'
import { useState } from 'react'
import { newKey } from '../../relay-client/client.ts'
import { relayNow, useAt } from '../../relay-client/clock.ts'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { FileButton, saveFile } from '../parts/file.tsx'
import { SavedField } from '../parts/saved-field.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { deskRelay } from '../sync/relay.ts'
import { dropCalendar, openCalendarFile } from './calendar-file.ts'
import { understandCalendar } from './understand.ts'

const withCalendars = (practice: Practice, change: (before: Subscription[]) => Subscription[]): Practice => ({
  ...practice,
  calendars: change(practice.calendars ?? []),
})

/** A subscription with one's address in it, or without where nothing was typed. */
function withOwner({ owner: _, ...rest }: Subscription, typed: string): Subscription {
  return typed.trim() === '' ? rest : { ...rest, owner: typed.trim() }
}

const newId = (): string =>
  newKey()
    .replaceAll(/[^A-Za-z0-9]/g, '')
    .slice(0, 12)

/** Other calendars that must not clash. */
export function CalendarsPage() {
  const { practice, calendars } = useDesk()
  const [name, setName] = useState('')
  const [url, setUrl] = useState('')
  const act = useAct()
  const add = (): void => {
    const id = newId()
    act.run(
      () =>
        changePractice(db, 'a calendar added', (p) =>
          withCalendars(p, (before) => [...before, { id, name: name.trim(), url: url.trim() }]),
        ),
      () => {
        setName('')
        setUrl('')
      },
    )
  }
  const list = practice.calendars ?? []
  return (
    <SettingsPage
      title="Other calendars"
      line="What stands in them closes times at your door. The relay reads them every few minutes, and again before it takes a request; it keeps when you are busy, never with what."
    >
      <div className="grid max-w-[1020px] gap-5 lg:grid-cols-[1fr_360px]">
        <ul className="grid h-fit gap-4">
          {list.length === 0 && (
            <li className="sheet p-5">
              Calendars you subscribe to will be listed here, with whether they could be read.
            </li>
          )}
          {list.map((calendar) => (
            <li key={calendar.id} className="sheet grid gap-3 p-5">
              <SavedField
                label="Name"
                what="the name of a calendar"
                value={calendar.name}
                change={(p, typed) =>
                  withCalendars(p, (before) =>
                    before.map((subscription) =>
                      subscription.id === calendar.id ? { ...subscription, name: typed } : subscription,
                    ),
                  )
                }
              />
              {calendar.url === undefined ? (
                <p className="text-[14px] text-soft">From a file, as it was when you opened it.</p>
              ) : (
                <>
                  <SavedField
                    label="Address"
                    what="the address of a calendar"
                    value={calendar.url ?? ''}
                    change={(p, typed) =>
                      withCalendars(p, (before) =>
                        before.map((subscription) =>
                          subscription.id === calendar.id ? { ...subscription, url: typed } : subscription,
                        ),
                      )
                    }
                  />
                  <SavedField
                    label="Your mail address in it"
                    help={`If it is not ${practice.profile.email}. What you have declined there counts as free.`}
                    what="your address in a calendar"
                    value={calendar.owner ?? ''}
                    change={(p, typed) =>
                      withCalendars(p, (before) =>
                        before.map((subscription) =>
                          subscription.id === calendar.id ? withOwner(subscription, typed) : subscription,
                        ),
                      )
                    }
                  />
                  <State state={calendars.find((other) => other.id === calendar.id)} />
                </>
              )}
              <button
                type="button"
                className="press press-no justify-self-start"
                onClick={() => dropCalendar(db, calendar.id, calendar.name)}
              >
                No longer read this
              </button>
            </li>
          ))}
        </ul>
        <div className="grid h-fit gap-5">
          <form
            className="sheet grid h-fit gap-3 p-5"
            onSubmit={(event) => {
              event.preventDefault()
              add()
            }}
          >
            <h2>Add one</h2>
            <p className="text-[14px] text-soft">
              Calendar programs call it a private or secret address, in iCalendar format (.ics).
            </p>
            <label className="ask" htmlFor="calendar-name">
              What you call it
            </label>
            <input
              id="calendar-name"
              className="field"
              value={name}
              onChange={(event) => setName(event.target.value)}
            />
            <label className="ask" htmlFor="calendar-url">
              Where it is read
            </label>
            <input
              id="calendar-url"
              className="field"
              inputMode="url"
              placeholder="https://"
              value={url}
              onChange={(event) => setUrl(event.target.value)}
            />
            <ProblemNote of={act} />
            <button type="submit" className="press press-go justify-self-start">
              <Plus size={16} aria-hidden="true" /> Read this calendar
            </button>
          </form>
          <OpenFile />
          <Feed />
        </div>
      </div>
    </SettingsPage>
  )
}

/** Opens a calendar file once, in a worker: how far it is shows, and it can be stopped. */
function OpenFile() {
  const [said, setSaid] = useState<string>()
  const [progress, setProgress] = useState<{ done: number; total: number; stop: AbortController }>()
  const open = async (file: File): Promise<void> => {
    const stop = new AbortController()
    setSaid(undefined)
    setProgress({ done: 0, total: 0, stop })
    try {
      const id = newId()
      const name = file.name.replace(/\.ics$/i, '').slice(0, 100) || 'A file'
      const { busy, skipped } = await openCalendarFile(
        db,
        { id, name },
        await file.text(),
        relayNow(),
        (wish) => understandCalendar(wish, (done, total) => setProgress({ done, total, stop }), stop.signal),
      )
      setSaid(
        `${busy} busy times are in your diary.${skipped.length > 0 ? ` Not understood: ${skipped.slice(0, 5).join('; ')}.` : ''}`,
      )
    } catch (error) {
      setSaid((error as Error).message)
    }
    setProgress(undefined)
  }
  return (
    <section className="sheet grid gap-3 p-5">
      <h2>Open a file</h2>
      <p className="text-[14px] text-soft">
        An .ics file counts as it is when you open it; it is not read again.
      </p>
      {progress ? (
        <div className="grid gap-2">
          <progress
            className="progress progress-primary w-full"
            aria-label="Understanding the file"
            {...(progress.total > 0 ? { value: progress.done, max: progress.total } : {})}
          />
          <button type="button" className="press justify-self-start" onClick={() => progress.stop.abort()}>
            Stop
          </button>
        </div>
      ) : (
        <FileButton accept=".ics,text/calendar" onFile={open}>
          Choose a calendar file
        </FileButton>
      )}
      <p role="status" className={said ? 'text-[14px] wrap-anywhere' : 'sr-only'}>
        {said}
      </p>
    </section>
  )
}

/** The other way: one's bookings as a calendar that other programs subscribe to. */
function Feed() {
  const { connection, practice } = useDesk()
  const act = useAct()
  const make = async (): Promise<void> => {
    const { url } = await deskRelay.feed(connection.key ?? '')
    await db.connection.update('link', { feed: url })
  }
  const save = async (): Promise<void> =>
    saveFile(
      'bookings.ics',
      'text/calendar',
      writeBookings(practice, await db.bookings.toArray(), relayNow()),
    )
  return (
    <section className="sheet grid gap-3 p-5">
      <h2>Your bookings, elsewhere</h2>
      <p className="text-[14px] text-soft">
        A private address that other calendars can subscribe to. Whoever has it sees names and times; with
        .ifb at its end instead of .ics it says only when you are busy, with /hours.ics when you work.
      </p>
      {connection.feed && (
        <label className="ask">
          The address
          <input
            className="field mt-1"
            readOnly
            value={connection.feed}
            onFocus={(event) => event.target.select()}
          />
        </label>
      )}
      <ProblemNote of={act} />
      <button
        type="button"
        className="press justify-self-start"
        disabled={!connection.key}
        onClick={() => act.run(make)}
      >
        {connection.feed ? 'Replace the address' : 'Make an address'}
      </button>
      <button type="button" className="press justify-self-start" onClick={() => act.run(save)}>
        Save them as a file
      </button>
    </section>
  )
}

function State({ state }: { state: CalendarState | undefined }) {
  const read = useAt((now) =>
    state?.read === undefined ? 'never read' : `read ${lengthOf(now - state.read)} ago`,
  )
  if (!state) return <p className="text-[14px] text-soft">Not read yet.</p>
  return (
    <div className="text-[14px]" role="status">
      <p className={state.problem ? 'font-semibold text-clay' : 'text-soft'}>
        {state.problem
          ? `It can’t be read: ${state.problem} What was known before still counts (${read}).`
          : `Busy ${state.entries.length} times in the year to come · ${read}`}
      </p>
      {state.skipped.length > 0 && (
        <details className="mt-1">
          <summary className="cursor-pointer font-semibold">
            {state.skipped.length} things in it were not understood
          </summary>
          <ul className="mt-1 list-disc pl-5">
            {state.skipped.slice(0, 30).map((why) => (
              <li key={why} className="wrap-anywhere">
                {why}
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  )
}
