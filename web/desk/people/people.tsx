import { standingFrom } from '@acolhida/core/people'
import type { Instant } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import { useMinute } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import { type PeopleWish, peopleIn } from '../data/lists.ts'
import { type Desk, useDesk } from '../data/live.ts'
import { join, stagesIn } from '../data/people.ts'
import type { PersonRow } from '../data/rows.ts'
import { ActButton, ProblemNote, useAct } from '../parts/act.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { saveFile } from '../parts/file.tsx'
import { among, FilterChoice, FindBar, SearchField, useFilters } from '../parts/find-bar.tsx'
import { FoundTable } from '../parts/found-table.tsx'
import type { Column } from '../parts/window-table.tsx'
import { when } from '../parts/words.ts'
import { AboutPerson } from './about-person.tsx'
import { PersonChoice } from './person-choice.tsx'

const SHOWS = {
  all: 'Everybody',
  known: 'Known',
  new: 'New',
  blocked: 'May not book',
} satisfies Record<PeopleWish['show'], string>

const ORDERS = { name: 'Name', latest: 'Newest booking' } satisfies Record<PeopleWish['by'], string>

/** Everybody who has asked, known by their mail address. */
export function People() {
  const desk = useDesk()
  const now = useMinute()
  const { filters, set } = useFilters({ q: '', show: 'all', stage: '', by: 'name', down: '' })
  const [joining, setJoining] = useState<PersonRow>()
  const [about, setAbout] = useState<PersonRow | 'new'>()
  const wish: PeopleWish = {
    search: filters.q,
    show: among(SHOWS, filters.show, 'all'),
    by: among(ORDERS, filters.by, 'name'),
    down: filters.down === 'yes',
    stage: filters.stage,
  }
  const { search, show, stage, by, down } = wish
  const stages = useLiveQuery(() => stagesIn(db), []) ?? []
  const keys = useLiveQuery(
    () => peopleIn(db, wish, now),
    [search, show, stage, by, down, show === 'all' ? 0 : now],
  )
  const columns = useMemo(() => columnsOf(desk, now, setAbout, setJoining), [desk, now])
  return (
    <>
      <title>People · Acolhida</title>
      <header className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1>People</h1>
          <p className="mt-1 text-[14px] text-soft">
            People are new until their first session, and known from then on
          </p>
        </div>
        <div className="flex flex-wrap gap-2.5">
          <Link className="press" to="/people/move-in">
            Move people in
          </Link>
          <ActButton
            disabled={!keys?.length}
            title="Everybody who is listed below"
            onAct={async () => {
              const { cardsOf } = await import('./save-cards.ts')
              saveFile('people.vcf', 'text/vcard', await cardsOf(db, keys ?? []))
            }}
          >
            Save them as cards
          </ActButton>
          <button type="button" className="press" onClick={() => setAbout('new')}>
            Add or invite somebody
          </button>
        </div>
      </header>
      <FindBar
        count={keys ? (keys.length === 1 ? '1 person' : `${keys.length.toLocaleString('en')} people`) : ''}
      >
        <SearchField label="Name or mail address" value={filters.q} onSearch={(q) => set({ q })} />
        <FilterChoice
          label="Who is shown"
          value={show}
          options={SHOWS}
          onChange={(next) => set({ show: next })}
        />
        {stages.length > 0 && (
          <FilterChoice
            label="How far you have come"
            value={stage ?? ''}
            options={{ '': 'However far', ...Object.fromEntries(stages.map((one) => [one, one])) }}
            onChange={(next) => set({ stage: next })}
          />
        )}
      </FindBar>
      <FoundTable
        label="People"
        columns={columns}
        keys={keys}
        rowsOf={rowsOf}
        order={{ by, down }}
        onOrder={(order) => set({ by: order.by, down: order.down ? 'yes' : '' })}
        nothing={
          search || show !== 'all' || stage
            ? 'Nobody of that kind.'
            : 'People who ask for your time will be listed here.'
        }
      />
      {about && (
        <AboutPerson
          desk={desk}
          person={about === 'new' ? undefined : about}
          close={() => setAbout(undefined)}
        />
      )}
      {joining && <Joining person={joining} close={() => setJoining(undefined)} />}
    </>
  )
}

const rowsOf = (keys: string[]) => db.people.bulkGet(keys)

const columnsOf = (
  { practice }: Desk,
  now: Instant,
  onAbout: (person: PersonRow) => void,
  onJoin: (person: PersonRow) => void,
): Column<PersonRow>[] => [
  {
    id: 'name',
    name: 'Name',
    sorts: true,
    cell: ({ id, name, emails, blocked, stage }) => (
      <>
        <Link className="font-bold underline-offset-3 hover:underline" to={`/people/${id}`}>
          {name}
        </Link>
        <span className="block text-[13px] text-soft">{emails.join(', ')}</span>
        {stage && <span className="tag tag-info mt-0.5">{stage}</span>}
        {blocked && <span className="tag tag-closed mt-0.5">may not book</span>}
      </>
    ),
  },
  {
    id: 'standing',
    name: 'Standing',
    width: 'w-[84px] md:w-[104px]',
    cell: ({ knownFrom }) =>
      standingFrom(knownFrom, now) === 'known' ? (
        <span className="tag tag-fits">known</span>
      ) : (
        <span className="tag tag-info">new</span>
      ),
  },
  {
    id: 'tags',
    name: 'Tags',
    wide: true,
    cell: ({ allTags }) => (
      <span className="text-[13px] text-soft">{allTags.map((tag) => `“${tag}”`).join(' ')}</span>
    ),
  },
  {
    id: 'latest',
    name: 'Newest booking',
    width: 'w-[190px]',
    wide: true,
    sorts: true,
    cell: ({ latest, newest }) =>
      latest !== undefined && (
        <Link className="way text-[14px]" to={`/arrivals/${newest}`}>
          {when(practice, latest)}
        </Link>
      ),
  },
  {
    id: 'do',
    name: 'Do',
    width: 'w-[92px] md:w-[220px]',
    cell: (person) => (
      <span className="flex flex-wrap gap-1">
        <button type="button" className="press press-quiet px-2" onClick={() => onAbout(person)}>
          About …<span className="sr-only"> {person.name}</span>
        </button>
        <button type="button" className="press press-quiet px-2" onClick={() => onJoin(person)}>
          Join with …<span className="sr-only"> {person.name}</span>
        </button>
      </span>
    ),
  },
]

function Joining({ person, close }: { person: PersonRow; close: () => void }) {
  const [other, setOther] = useState<PersonRow>()
  const act = useAct()
  return (
    <Dialog title={`Join ${person.name} with somebody`} close={close}>
      <p className="mb-3 text-soft">
        When one person wrote from two addresses. {person.name} stays; the other’s addresses and bookings come
        along.
      </p>
      <PersonChoice label="The same person as" but={person.id} chosen={other} onChoose={setOther} />
      <button
        type="button"
        className="press press-go mt-4"
        disabled={!other || act.busy}
        onClick={() => other && act.run(() => join(db, person.id, other.id), close)}
      >
        Join them
      </button>
      <ProblemNote of={act} />
    </Dialog>
  )
}
