import { inForce, PSEUDO } from '@acolhida/core/time'
import { Suspense, useEffect } from 'react'
import { Link, Outlet, useLocation } from 'react-router'
import { TileFrieze } from '../../drawings/tile.tsx'
import { RelayError } from '../../relay-client/client.ts'
import { useClockNote } from '../../relay-client/clock.ts'
import { Boundary } from '../parts/boundary.tsx'
import { LanguageChoice } from '../parts/language-choice.tsx'
import { Notice } from '../parts/notice.tsx'
import { say } from '../parts/say.ts'
import { speakHere } from '../parts/tongue.ts'
import { useDoorQuery, useFollowing, useSlug } from '../visit/follow.ts'
import { NotThisAddress } from './nowhere.tsx'

/** The frame of the door: who it belongs to, and the page one is on. */
export function Door() {
  const slug = useSlug()
  const { pathname } = useLocation()
  const door = useDoorQuery(slug)
  const clockNote = useClockNote()
  useFollowing(slug)
  // The practice may not speak what was wanted here, or have other words for it.
  const spoken = door.data?.language
  const own = door.data?.words
  useEffect(() => {
    if (spoken !== undefined) void speakHere(inForce() === PSEUDO ? PSEUDO : spoken, own)
  }, [spoken, own])
  if (door.error && !door.data) {
    if (door.error instanceof RelayError && door.error.status === 404)
      return <NotThisAddress message={door.error.message} />
    return <NotThisAddress message={door.error.message} again={() => door.refetch()} />
  }
  if (!door.data) return <div className="p-10 text-soft">{say('moment')}</div>
  const { practice, trial } = door.data
  return (
    <div className="door min-h-dvh pb-24">
      <header className="relative overflow-hidden bg-rail text-white">
        <TileFrieze count={16} className="absolute right-0 bottom-0 h-7 opacity-50 sm:h-10" />
        <div className="mx-auto max-w-[1080px] px-5 pt-6 pb-12 sm:pt-7 sm:pb-14">
          <div className="flex items-start justify-between gap-4">
            <Link to={`/${slug}`} className="serif text-[26px] sm:text-[30px]">
              {practice.name}
            </Link>
            <LanguageChoice languages={door.data.languages} />
          </div>
          {practice.headline && <p className="mt-0.5">{practice.headline}</p>}
        </div>
      </header>
      <main className="mx-auto max-w-[1080px] px-5 pt-6">
        {trial && (
          <div className="mb-4">
            <Notice tone="info" still>
              {say('trial', { as: trial.as })}
            </Notice>
          </div>
        )}
        {clockNote && !trial && (
          <div className="mb-4">
            <Notice tone="info">{clockNote}</Notice>
          </div>
        )}
        <Boundary at={pathname}>
          <Suspense fallback={<p className="text-soft">{say('moment')}</p>}>
            <Outlet context={door.data} />
          </Suspense>
        </Boundary>
      </main>
    </div>
  )
}
