import type { Path, PathStation, Practice } from '@acolhida/core/practice'
import { checkPractice } from '@acolhida/core/practice'
import { instalments } from '@acolhida/core/preparing'
import { GripVertical, X } from 'lucide-react'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ActButton } from '../parts/act.tsx'
import { useSortableRow } from '../parts/sortable-list.tsx'
import { Fields } from '../settings/fields.tsx'
import type { Setting } from '../settings/setting.ts'
import { cash, stationName } from './path-words.ts'
import {
  pauseSettings,
  paySettings,
  prepareSettings,
  type StationThat,
  sessionsSettings,
} from './station-settings.ts'
import { withPath } from './with-path.ts'

/** One thing on the line of a path: moved, set, taken off. */
export function StationRow({
  practice,
  path,
  station,
}: {
  practice: Practice
  path: Path
  station: PathStation
}) {
  const { box, handle } = useSortableRow(station.id)
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
          <StationFields practice={practice} path={path} station={station} />
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

/** What is set of it, each kind in its own way. */
function StationFields({
  practice,
  path,
  station,
}: {
  practice: Practice
  path: Path
  station: PathStation
}) {
  const at = (practice.paths ?? []).indexOf(path)
  const fields = <D extends PathStation['does']>(of: StationThat<D>, settings: Setting<StationThat<D>>[]) => (
    <Fields
      settings={settings}
      of={of}
      practice={practice}
      change={(p, to) =>
        withPath(p, path.id, (one) => ({
          ...one,
          stations: one.stations.map((other) =>
            other.id === of.id && other.does === of.does ? to(other as StationThat<D>) : other,
          ),
        }))
      }
      faults={checkPractice(practice)}
      path={`paths[${at}].stations[${path.stations.indexOf(station)}]`}
    />
  )
  switch (station.does) {
    case 'prepare':
      return fields(station, prepareSettings(practice))
    case 'sessions':
      return fields(station, sessionsSettings(practice))
    case 'pause':
      return fields(station, pauseSettings(practice, path, station))
    case 'pay':
      return (
        <>
          {fields(station, paySettings)}
          <Parts practice={practice} amounts={instalments(path.price, station.parts)} />
        </>
      )
  }
}

/** What the parts of a price come to. */
function Parts({ practice, amounts }: { practice: Practice; amounts: readonly number[] }) {
  const [each = 0] = amounts
  const last = amounts.at(-1) ?? 0
  return (
    <p className="mt-1 text-[13px] text-soft">
      {amounts.length === 1
        ? `${cash(practice, each)} at once.`
        : each === last
          ? `${amounts.length} of ${cash(practice, each)}.`
          : `${amounts.length - 1} of ${cash(practice, each)}, and a last one of ${cash(practice, last)}.`}
    </p>
  )
}
