import { moment } from '@acolhida/core/time'
import { lazy, Suspense, useEffect, useState } from 'react'
import { NavLink, Outlet, useLocation, useNavigate } from 'react-router'
import { useAt, useClockNote, useLeapt, useRelayTroubles } from '../../relay-client/clock.ts'
import { Emblem } from '../../theme/mark.tsx'
import { isAwaiting } from '../data/awaiting.ts'
import { type Desk, useDeskData } from '../data/live.ts'
import { useNewerDesk } from '../offline/offline.ts'
import { ActButton } from '../parts/act.tsx'
import { HeadFocus } from '../parts/head-focus.tsx'
import { PageBoundary } from '../parts/page-boundary.tsx'
import { PRACTICE_PLACES } from '../parts/practice-places.ts'
import { homeZone } from '../parts/words.ts'
import { releaseClock } from '../sync/acts.ts'
import { usePublishProblem, useStanding, useTrouble, useUnpublished } from '../sync/standing.ts'
import { useRelayStatus } from '../sync/use-status.ts'

// What is not on the way to the first page comes when it is asked for.
const Finder = lazy(async () => ({ default: (await import('../finder/finder.tsx')).Finder }))
const RelayTroubles = lazy(async () => ({
  default: (await import('../parts/relay-troubles.tsx')).RelayTroubles,
}))
const UndoBar = lazy(async () => ({ default: (await import('../parts/undo-bar.tsx')).UndoBar }))
const KeysDialog = lazy(async () => ({ default: (await import('../parts/keys.tsx')).KeysDialog }))
const Begin = lazy(async () => ({ default: (await import('./begin.tsx')).Begin }))

/** The places of work. */
const WORK = [
  { to: '/', name: 'Today', key: 't' },
  { to: '/arrivals', name: 'Arrivals', key: 'a' },
  { to: '/diary', name: 'Diary', key: 'd' },
  { to: '/waiting', name: 'Waiting', key: 'f' },
  { to: '/people', name: 'People', key: 'p' },
  { to: '/outbox', name: 'Outbox', key: 'x' },
  { to: '/money', name: 'Money', key: 'n' },
] as const

const PRACTICE = { to: '/practice', name: 'My practice', key: 'i' }
const PLACES = [...WORK, PRACTICE, ...PRACTICE_PLACES]

/** The frame of the desk: the rail, the page one is on, and what can still be undone. */
export function DeskFrame() {
  const desk = useDeskData()
  const pairing = new URLSearchParams(location.hash.slice(1)).get('pair')
  if (desk === undefined) return <div className="p-10 text-soft">One moment …</div>
  if (desk === null)
    return (
      <Suspense>
        <Begin code={pairing ?? undefined} />
      </Suspense>
    )
  return <Furnished desk={desk} />
}

function Furnished({ desk }: { desk: Desk }) {
  const navigate = useNavigate()
  const { pathname } = useLocation()
  const [keys, setKeys] = useState(false)
  const [finding, setFinding] = useState(false)
  const waiting = useAt((now) => desk.requested.filter((row) => isAwaiting(row, now)).length)
  const numbers: Record<string, number> = {
    ...{ '/': waiting, '/arrivals': waiting + desk.openEnquiries, '/waiting': desk.openFreed },
  }
  const clockNote = useClockNote()
  const newer = useNewerDesk()
  const troubles = useRelayTroubles()

  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      const { target } = event
      const find = event.key.toLowerCase() === 'k' && (event.ctrlKey || event.metaKey) && !event.altKey
      if (find && !document.querySelector('dialog[open]')) {
        event.preventDefault()
        setFinding(true)
        return
      }
      const typing =
        target instanceof HTMLElement &&
        (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
      if (typing || event.ctrlKey || event.metaKey || event.altKey || document.querySelector('dialog[open]'))
        return
      if (event.key === '?') setKeys(true)
      if (event.key === '/') {
        // The key is for opening it, not for what is typed there.
        event.preventDefault()
        setFinding(true)
      }
      const go = PLACES.find(({ key }) => key === event.key)
      if (go) void navigate(go.to)
    }
    document.addEventListener('keydown', press)
    return () => document.removeEventListener('keydown', press)
  }, [navigate])

  return (
    <div className="min-h-dvh md:grid md:grid-cols-[196px_1fr] print:block">
      <nav
        aria-label="Desk"
        className="bg-rail px-3.5 py-5 text-rail-ink print:hidden md:sticky md:top-0 md:flex md:h-dvh md:flex-col md:gap-[3px]"
      >
        <div className="serif flex items-center gap-2.5 px-2 pb-4 text-[22px] font-semibold">
          <Emblem /> Acolhida
        </div>
        <div className="flex flex-wrap gap-1 md:contents">
          {WORK.map((line) => (
            <RailLink key={line.to} to={line.to} name={line.name} count={numbers[line.to]} />
          ))}
          <RailLink
            to={PRACTICE.to}
            name={PRACTICE.name}
            here={PRACTICE_PLACES.some(({ to }) => pathname.startsWith(to))}
          />
          <button
            type="button"
            className="flex min-h-[38px] cursor-pointer items-center justify-between gap-3 rounded-lg px-2.5 text-left hover:bg-white/10 md:mt-3"
            aria-keyshortcuts="/ Control+K"
            onClick={() => setFinding(true)}
          >
            Find … <kbd className="hidden text-[13px] opacity-80 md:inline">/</kbd>
          </button>
        </div>
        <Foot desk={desk} />
      </nav>
      <main className="min-w-0 px-5 pt-6 pb-24 md:px-[30px]">
        {clockNote && <p className="note mb-4 bg-tile-soft text-tile-ink">{clockNote}</p>}
        {newer && (
          <p role="status" className="note mb-4 flex flex-wrap items-center gap-3 bg-tile-soft text-tile-ink">
            A newer desk is there.
            <button type="button" className="press" onClick={() => location.reload()}>
              Load it
            </button>
          </p>
        )}
        {troubles !== 'none' && (
          <Suspense>
            <RelayTroubles troubles={troubles} />
          </Suspense>
        )}
        <ClockLeapt desk={desk} />
        <PageBoundary at={pathname}>
          <Suspense fallback={<div className="min-h-[60dvh]" aria-busy="true" />}>
            <Outlet context={desk} />
            <HeadFocus at={pathname} />
          </Suspense>
        </PageBoundary>
      </main>
      <Suspense>
        <UndoBar desk={desk} />
      </Suspense>
      <Suspense>
        {finding && <Finder desk={desk} close={() => setFinding(false)} />}
        {keys && <KeysDialog rail={PLACES} close={() => setKeys(false)} />}
      </Suspense>
    </div>
  )
}

/** A way in the rail; `here` where one is on a page that belongs to it. */
function RailLink({
  to,
  name,
  count = 0,
  here = false,
}: {
  to: string
  name: string
  count?: number | undefined
  here?: boolean
}) {
  return (
    <NavLink
      to={to}
      end={to === '/'}
      className={({ isActive }) =>
        `flex min-h-[38px] shrink-0 items-center justify-between gap-3 rounded-lg px-2.5 ${isActive || here ? 'bg-card font-semibold text-ink' : 'hover:bg-white/10'}`
      }
    >
      {name}
      {count > 0 && (
        <b className="figures rounded-[9px] bg-sun px-1.5 text-[13px] text-accent-content">{count}</b>
      )}
    </NavLink>
  )
}

/** The relay's clock has leapt: until the practitioner has looked, nothing lapses, is sent or is forgotten. */
function ClockLeapt({ desk: { practice } }: { desk: Desk }) {
  const leapt = useLeapt()
  if (!leapt) return null
  const where = homeZone(practice)
  return (
    <div role="alert" className="note mb-4 bg-clay-soft text-clay-ink">
      <p>
        <b>The relay’s clock has leapt</b> from {moment(leapt.from, where)} to {moment(leapt.to, where)}.
        Until you say which is right, no hold runs out, no mail goes and nothing is forgotten.
      </p>
      <p className="mt-2 flex flex-wrap gap-2">
        <ActButton onAct={() => releaseClock(false)}>{moment(leapt.to, where)} is right</ActButton>
        <ActButton onAct={() => releaseClock(true)}>I have set the clock back</ActButton>
      </p>
    </div>
  )
}

/** How the door stands, and what has not gone out yet. */
function Foot({ desk }: { desk: Desk }) {
  const standing = useStanding()
  const unpublished = useUnpublished()
  const problem = usePublishProblem()
  const trouble = useTrouble()
  const status = useRelayStatus()
  const held = desk.intentions.filter((intention) => !intention.refused).length
  const WORDS = {
    alone: 'No relay yet',
    connecting: 'Looking for the relay …',
    connected: desk.practice.door?.open === false ? 'Your door is closed' : 'Your door is open',
    unreachable: 'The relay can’t be reached',
    'cut-off': 'No longer paired',
  }
  const outstanding = [
    held > 0 ? `${held} ${held === 1 ? 'decision' : 'decisions'}` : '',
    unpublished && standing !== 'alone' ? 'changes to the door' : '',
  ].filter(Boolean)
  return (
    <div className="mt-auto px-2.5 pt-4 text-[13px]" role="status">
      <NavLink to="/desk" className="underline-offset-2 hover:underline">
        {WORDS[standing]}
      </NavLink>
      <div className="opacity-85">{desk.practice.profile.slug}</div>
      {status?.demo === desk.practice.id && (
        <div className="mt-1">
          This is the demo.{' '}
          <NavLink to="/first/practice" className="underline underline-offset-2">
            Begin my own practice
          </NavLink>
        </div>
      )}
      {outstanding.length > 0 && (
        <div className="mt-1 font-semibold">Not gone out yet: {outstanding.join(' and ')}</div>
      )}
      {problem && <div className="mt-1 font-semibold">Not published: {problem}</div>}
      {trouble && <div className="mt-1 font-semibold">Something went wrong here: {trouble}</div>}
    </div>
  )
}
