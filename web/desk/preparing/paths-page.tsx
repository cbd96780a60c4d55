import { checkPractice, type Path, type PathStation, type Practice } from '@acolhida/core/practice'
import { pathFault } from '@acolhida/core/preparing'
import { useState } from 'react'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { ActButton } from '../parts/act.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { SortableList } from '../parts/sortable-list.tsx'
import { Fields } from '../settings/fields.tsx'
import { type Setting, under } from '../settings/setting.ts'
import { beginPath, beginStation } from './begin.ts'
import { ON_A_PATH, pathLine, stationName } from './path-words.ts'
import { StationRow } from './station-row.tsx'
import { withPath } from './with-path.ts'

const what = 'a path'
/** What is set of a path, but for what stands on its line. */
const PATH_SETTINGS: Setting<Path>[] = [
  {
    is: 'text',
    label: 'What it is called',
    what,
    path: 'name',
    read: ({ name }) => name,
    write: (path, typed) => {
      const name = typed?.trim()
      if (!name) throw new Error('Please give it a name; clients read it.')
      return { ...path, name }
    },
  },
  { is: 'money', label: 'What it costs', what, ...under<Path, 'price'>('price') },
]

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
  const at = (practice.paths ?? []).indexOf(path)
  const faults = checkPractice(practice)
  const impossible = pathFault(practice, path)
  const wrong =
    faults.find((fault) => fault.path.startsWith(`paths[${at}].`))?.message ??
    (impossible && `It can’t be given: ${impossible}`)
  const set = (to: (path: Path) => Path): Promise<void> =>
    changePractice(db, what, (p) => withPath(p, path.id, to))
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
          <Fields
            settings={PATH_SETTINGS}
            of={path}
            practice={practice}
            change={(p, to) => withPath(p, path.id, to)}
            faults={faults}
            path={`paths[${at}]`}
          />
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
            {(Object.keys(ON_A_PATH) as PathStation['does'][]).map((does) => (
              <ActButton
                key={does}
                onAct={() =>
                  changePractice(db, what, (p) =>
                    withPath(p, path.id, (one) => ({
                      ...one,
                      stations: [...one.stations, beginStation(p, does, one)],
                    })),
                  )
                }
              >
                {ON_A_PATH[does]}
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
