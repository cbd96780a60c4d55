import { signOf } from '@acolhida/core/money'
import {
  checkPractice,
  type Overlay,
  type Path,
  type PathStation,
  type Practice,
  preparationOf,
  withParts,
} from '@acolhida/core/practice'
import { instalments, pathFault } from '@acolhida/core/preparing'
import { freeId } from '@acolhida/core/questions'
import { duration } from '@acolhida/core/time'
import { GripVertical, X } from 'lucide-react'
import { useState } from 'react'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { ActButton } from '../parts/act.tsx'
import { asOptions } from '../parts/plain-field.tsx'
import { SavedField } from '../parts/saved-field.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { SortableList, useSortableRow } from '../parts/sortable-list.tsx'
import { currencyOf, serviceName } from '../parts/words.ts'
import { amount, durationTyped, wholeTyped } from '../settings/setting.ts'
import { cash, pathLine } from './path-words.ts'

type Of<D extends PathStation['does']> = Extract<PathStation, { does: D }>

const isDoing = <D extends PathStation['does']>(station: PathStation, does: D): station is Of<D> =>
  station.does === does
/** The practice with parts of a station changed; what is set to nothing is left out. */
type Put = <D extends PathStation['does']>(p: Practice, does: D, parts: Overlay<Of<D>>) => Practice

/** How a path begins. */
function beginPath({ paths = [], services }: Practice): Path {
  const one = services.find(({ seats }) => seats === 1) ?? services[0]!
  return {
    id: freeId(new Set(paths.map(({ id }) => id)), 'path'),
    ...{ name: 'A new path', text: '', price: 0 },
    stations: [{ id: 'sessions', does: 'sessions', service: one.id, minutes: one.minutes, many: 6 }],
  }
}

function beginStation(
  { preparations = [], services }: Practice,
  does: PathStation['does'],
  path: Path,
): PathStation {
  const id = freeId(new Set(path.stations.map((station) => station.id)), does)
  const one = services.find(({ seats }) => seats === 1) ?? services[0]!
  switch (does) {
    case 'prepare': {
      const first = preparations[0]
      if (!first)
        throw new Error('There is nothing to prepare yet. Please write it under What clients prepare first.')
      return { id, does, preparation: first.id }
    }
    case 'sessions':
      return { id, does, service: one.id, minutes: one.minutes, many: 1 }
    case 'pay':
      return { id, does, parts: 3, after: duration('P7D'), every: duration('P1M') }
    case 'pause':
      return { id, does, days: 14 }
  }
}

const ADD: Record<PathStation['does'], string> = {
  prepare: 'Something to prepare',
  sessions: 'Sessions',
  pay: 'Payments',
  pause: 'A pause',
}

/** What one thing on the line is called. */
function stationName(practice: Practice, station: PathStation): string {
  if (station.does === 'sessions') return `Sessions of ${serviceName(practice, station.service)}`
  if (station.does === 'prepare') return preparationOf(practice, station.preparation)?.name ?? ADD.prepare
  return ADD[station.does]
}

/** Programmes: sessions, what is prepared and paid, in their order. */
export function PathsPage() {
  const { practice } = useDesk()
  const [open, setOpen] = useState<string>()
  const paths = practice.paths ?? []
  const add = (): Promise<void> =>
    changePractice(db, 'a new path', (p) => {
      const begun = beginPath(p)
      setOpen(begun.id)
      return { ...p, paths: [...(p.paths ?? []), begun] }
    })
  return (
    <SettingsPage
      title="Paths"
      line="A programme as one line: what is read, signed and paid, and the sessions, in their order."
    >
      <div className="grid max-w-[940px] gap-4">
        {paths.length === 0 && (
          <p className="sheet p-5 text-soft">
            A long first session and several shorter ones, a season of lessons, ten sessions paid at once:
            such things will stand here. You give a path to somebody on their page.
          </p>
        )}
        {paths.map((path) => (
          <OnePath
            key={path.id}
            practice={practice}
            path={path}
            open={open === path.id}
            toggle={() => setOpen(open === path.id ? undefined : path.id)}
          />
        ))}
        <span>
          <ActButton onAct={add}>Begin a path</ActButton>
        </span>
      </div>
    </SettingsPage>
  )
}

const withPath = (p: Practice, id: string, to: (path: Path) => Path): Practice => ({
  ...p,
  paths: (p.paths ?? []).map((other) => (other.id === id ? to(other) : other)),
})

function OnePath({
  practice,
  path,
  open,
  toggle,
}: {
  practice: Practice
  path: Path
  open: boolean
  toggle: () => void
}) {
  const { code, decimals } = currencyOf(practice.profile.currency)
  const at = (practice.paths ?? []).indexOf(path)
  const wrong =
    checkPractice(practice).find((fault) => fault.path.startsWith(`paths[${at}].`))?.message ??
    (pathFault(practice, path) && `It can’t be given: ${pathFault(practice, path)}`)
  const set = (to: (path: Path) => Path): Promise<void> =>
    changePractice(db, 'a path', (p) => withPath(p, path.id, to))
  const move = (from: number, to: number): Promise<void> =>
    set((one) => {
      const stations = [...one.stations]
      stations.splice(to, 0, ...stations.splice(from, 1))
      return { ...one, stations }
    })
  return (
    <section className="sheet p-5" aria-label={path.name}>
      <div className="flex flex-wrap items-start justify-between gap-3">
        <div className="min-w-0">
          <h2 className="wrap-anywhere">{path.name}</h2>
          <p className="text-[14px] text-soft">{pathLine(practice, path)}</p>
          {wrong && <p className="mt-1 text-[14px] font-semibold text-clay">{wrong}</p>}
        </div>
        <button type="button" className="press" aria-expanded={open} onClick={toggle}>
          {open ? 'Fold up' : 'Change'} <span className="sr-only">{path.name}</span>
        </button>
      </div>
      {open && (
        <div className="mt-4 grid gap-4 border-t border-line pt-4">
          <div className="grid gap-3 sm:grid-cols-[1fr_160px]">
            <SavedField
              label="What it is called"
              what="a path"
              value={path.name}
              change={(p, typed) => {
                if (!typed.trim()) throw new Error('Please give it a name; clients read it.')
                return withPath(p, path.id, (one) => ({ ...one, name: typed.trim() }))
              }}
            />
            <SavedField
              label={`What it costs, in ${signOf(code)}`}
              what="a path"
              inputMode="decimal"
              value={(path.price / 10 ** decimals).toFixed(decimals)}
              change={(p, typed) =>
                withPath(p, path.id, (one) => ({ ...one, price: amount(typed, decimals) }))
              }
            />
          </div>
          <SortableList
            items={path.stations.map((station) => ({ id: station.id, name: stationName(practice, station) }))}
            onMove={move}
          >
            {path.stations.map((station) => (
              <StationRow key={station.id} practice={practice} path={path} station={station} />
            ))}
          </SortableList>
          <div className="flex flex-wrap items-center gap-2">
            <span className="text-[14px]">Add:</span>
            {(Object.keys(ADD) as PathStation['does'][]).map((does) => (
              <ActButton
                key={does}
                onAct={() =>
                  changePractice(db, 'a path', (p) =>
                    withPath(p, path.id, (one) => ({
                      ...one,
                      stations: [...one.stations, beginStation(p, does, one)],
                    })),
                  )
                }
              >
                {ADD[does]}
              </ActButton>
            ))}
          </div>
          <span>
            <ActButton
              className="press press-no"
              onAct={() =>
                changePractice(db, `${path.name} removed`, (p) => ({
                  ...p,
                  paths: (p.paths ?? []).filter(({ id }) => id !== path.id),
                }))
              }
            >
              Remove this path
            </ActButton>
            <span className="ml-3 text-[14px] text-soft">Whoever was given it goes on as before.</span>
          </span>
        </div>
      )}
    </section>
  )
}

function StationRow({ practice, path, station }: { practice: Practice; path: Path; station: PathStation }) {
  const { box, handle } = useSortableRow(station.id)
  const put: Put = (p, does, parts) =>
    withPath(p, path.id, (one) => ({
      ...one,
      stations: one.stations.map((other) =>
        other.id === station.id && isDoing(other, does) ? withParts(other, parts) : other,
      ),
    }))
  return (
    <li {...box}>
      <div className="grid grid-cols-[auto_1fr_auto] items-start gap-1.5 rounded-lg border border-line bg-card p-2 sm:gap-3 sm:p-3">
        <button
          type="button"
          className="press press-quiet mt-1 cursor-grab px-1.5"
          aria-label={`Move ${stationName(practice, station)}`}
          {...handle}
        >
          <GripVertical size={16} aria-hidden="true" />
        </button>
        <div className="min-w-0">
          <Fields practice={practice} path={path} station={station} put={put} />
        </div>
        <ActButton
          className="press press-quiet px-2"
          aria-label={`Remove ${stationName(practice, station)}`}
          onAct={() =>
            changePractice(db, 'a path', (p) =>
              withPath(p, path.id, (one) => ({
                ...one,
                stations: one.stations.filter(({ id }) => id !== station.id),
              })),
            )
          }
        >
          <X size={16} aria-hidden="true" />
        </ActButton>
      </div>
    </li>
  )
}

const daysTyped = (typed: string): number | undefined =>
  typed.trim() === '' ? undefined : wholeTyped(typed, 1)

function Fields({
  practice,
  path,
  station,
  put,
}: {
  practice: Practice
  path: Path
  station: PathStation
  put: Put
}) {
  const what = 'a path'
  switch (station.does) {
    case 'prepare':
      return (
        <SavedField
          label="To prepare"
          what={what}
          value={station.preparation}
          options={asOptions(practice.preparations ?? [])}
          change={(p, preparation) => put(p, 'prepare', { preparation })}
        />
      )
    case 'sessions':
      return (
        <div className="grid grid-cols-2 gap-3 sm:grid-cols-5">
          <div className="col-span-2 sm:col-span-1">
            <SavedField
              label="Sessions of"
              what={what}
              value={station.service}
              options={asOptions(practice.services.filter(({ seats }) => seats === 1))}
              change={(p, service) => put(p, 'sessions', { service })}
            />
          </div>
          <SavedField
            label="How many"
            what={what}
            type="number"
            value={String(station.many)}
            change={(p, typed) => {
              const many = wholeTyped(typed, 1)
              if (many > 60) throw new Error('Sixty sessions are the most.')
              return put(p, 'sessions', { many })
            }}
          />
          <SavedField
            label="Minutes"
            what={what}
            type="number"
            value={String(station.minutes)}
            change={(p, typed) => put(p, 'sessions', { minutes: wholeTyped(typed, 1) })}
          />
          <SavedField
            label="Days apart, least"
            what={what}
            type="number"
            value={String(station.least ?? '')}
            change={(p, typed) => put(p, 'sessions', { least: daysTyped(typed) })}
          />
          <SavedField
            label="Most"
            what={what}
            type="number"
            value={String(station.most ?? '')}
            change={(p, typed) => put(p, 'sessions', { most: daysTyped(typed) })}
          />
        </div>
      )
    case 'pay': {
      const parts = instalments(path.price, station.parts)
      const [each, last] = [parts[0] ?? 0, parts.at(-1) ?? 0]
      return (
        <div>
          <div className="grid grid-cols-1 gap-3 sm:grid-cols-3">
            <SavedField
              label="Parts of the price"
              what={what}
              type="number"
              value={String(station.parts)}
              change={(p, typed) => put(p, 'pay', { parts: Math.min(60, wholeTyped(typed, 1)) })}
            />
            <SavedField
              label="The first, after the giving"
              what={what}
              value={durationTyped(station.after)}
              units={['days', 'weeks', 'months']}
              change={(p, typed) => put(p, 'pay', { after: durationOfTyped(typed) })}
            />
            <SavedField
              label="Then every"
              what={what}
              value={durationTyped(station.every)}
              units={['days', 'weeks', 'months']}
              change={(p, typed) => put(p, 'pay', { every: durationOfTyped(typed) })}
            />
          </div>
          <p className="mt-1 text-[13px] text-soft">
            {station.parts === 1
              ? `${cash(practice, each)} at once.`
              : each === last
                ? `${station.parts} of ${cash(practice, each)}.`
                : `${station.parts - 1} of ${cash(practice, each)}, and a last one of ${cash(practice, last)}.`}
          </p>
        </div>
      )
    }
    case 'pause':
      return (
        <SavedField
          label={`Nothing for so many days, before ${nextOf(practice, path, station.id)}`}
          what={what}
          type="number"
          value={String(station.days)}
          change={(p, typed) => put(p, 'pause', { days: wholeTyped(typed, 1) })}
        />
      )
  }
}

const durationOfTyped = (typed: string) => {
  const [many = '', unit = ''] = typed.split(' ')
  const n = wholeTyped(many, 0)
  return duration(unit === 'months' ? `P${n}M` : unit === 'weeks' ? `P${n}W` : `P${n}D`)
}

/** What comes after a pause, in words. */
function nextOf(practice: Practice, { stations }: Path, id: string): string {
  const at = stations.findIndex((one) => one.id === id)
  const next = stations.slice(at + 1).find((one): one is Of<'sessions'> => one.does === 'sessions')
  return next ? serviceName(practice, next.service) : 'what comes next'
}
