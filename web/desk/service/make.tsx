import { type Place, type PlaceKind, type Practice, type Service, serviceOf } from '@acolhida/core/practice'
import { freeId } from '@acolhida/core/questions'
import { Plus } from 'lucide-react'
import { type ReactNode, useState } from 'react'
import { useNavigate } from 'react-router'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ActButton, ProblemNote, useAct } from '../parts/act.tsx'
import { PlainChoice, PlainField } from '../parts/plain-field.tsx'
import { withService } from './with-service.ts'

/** The ids of a list. */
export const idsOf = (list: readonly { id: string }[]): Set<string> => new Set(list.map(({ id }) => id))

/** A small form behind a button, where something that is lacking is made there and then. */
function Maker({
  name,
  make,
  children,
  clear,
}: {
  name: string
  make: () => Promise<unknown>
  children: ReactNode
  clear: () => void
}) {
  const [open, setOpen] = useState(false)
  const act = useAct()
  const close = (): void => {
    setOpen(false)
    clear()
  }
  if (!open)
    return (
      <button type="button" className="press press-quiet justify-self-start" onClick={() => setOpen(true)}>
        <Plus size={16} aria-hidden="true" /> {name}
      </button>
    )
  return (
    <form
      className="grid gap-2.5 border-t border-line pt-3"
      aria-label={name}
      onSubmit={(event) => {
        event.preventDefault()
        act.run(make, close)
      }}
    >
      {children}
      <div className="flex gap-2">
        <button type="submit" className="press press-go" disabled={act.busy}>
          Make it
        </button>
        <button type="button" className="press press-quiet" onClick={close}>
          Leave it
        </button>
      </div>
      <ProblemNote of={act} className="" />
    </form>
  )
}

/** Another place, at which this service takes place, too. */
export function MakePlace({ service }: { service: Service }) {
  const [name, setName] = useState('')
  const [kind, setKind] = useState<PlaceKind>('studio')
  const [address, setAddress] = useState('')
  const withPlace = (practice: Practice): Practice => {
    const place: Place = {
      id: freeId(idsOf(practice.places), `place-${practice.places.length + 1}`),
      kind,
      name: name.trim(),
      told: 'confirmation',
      ...(kind === 'phone' ? { whoCalls: 'practitioner' as const } : {}),
      ...(address.trim() ? { address: address.trim() } : {}),
    }
    return withService({ ...practice, places: [...practice.places, place] }, service.id, (of) => ({
      ...of,
      places: [...of.places, place.id],
    }))
  }
  return (
    <Maker
      name="Make another place"
      make={() => changePractice(db, 'another place', withPlace)}
      clear={() => {
        setName('')
        setAddress('')
      }}
    >
      <PlainField
        label="How it reads, after “50 minutes …”"
        required
        focused
        value={name}
        onChange={setName}
      />
      <PlainChoice
        label="Kind"
        value={kind}
        options={PLACE_KINDS}
        onChange={(to) => setKind(to as PlaceKind)}
      />
      <PlainField label="Address, link or number" value={address} onChange={setAddress} />
    </Maker>
  )
}

/** The kinds of places, as they are chosen. */
export const PLACE_KINDS: readonly { value: PlaceKind; name: string }[] = [
  { value: 'studio', name: 'My studio' },
  { value: 'video', name: 'Video' },
  { value: 'phone', name: 'Phone' },
  { value: 'client', name: 'At the client’s' },
  { value: 'other', name: 'Somewhere else' },
]

/** Other terms, which whoever books this service agrees to, too. */
export function MakeTerms({ service }: { service: Service }) {
  const [title, setTitle] = useState('')
  const [text, setText] = useState('')
  const withTerms = (practice: Practice): Practice => {
    const id = freeId(idsOf(practice.terms), 'terms')
    const version = { number: 1, title: title.trim(), text }
    return withService(
      { ...practice, terms: [...practice.terms, { id, versions: [version] }] },
      service.id,
      (of) => ({ ...of, terms: [...of.terms, id] }),
    )
  }
  return (
    <Maker
      name="Make other terms"
      make={() => changePractice(db, 'other terms', withTerms)}
      clear={() => {
        setTitle('')
        setText('')
      }}
    >
      <PlainField label="Title" required focused value={title} onChange={setTitle} />
      <PlainField label="Text" rows={6} value={text} onChange={setText} />
    </Maker>
  )
}

/** Questions of its own; one goes on in the builder. */
export function MakeQuestions({ service }: { service: Service }) {
  const navigate = useNavigate()
  return (
    <ActButton
      className="press press-quiet mt-2"
      onAct={async () => {
        let id = ''
        await changePractice(db, 'questions of its own', (practice) => {
          const { name } = serviceOf(practice, service.id) ?? service
          id = freeId(idsOf(practice.questionnaires), 'questions')
          const questionnaire = {
            id,
            name: `Before “${name}”`,
            version: 1,
            questions: [
              { id: 'brings', kind: 'long' as const, text: 'What brings you here?', required: true },
            ],
            rules: [],
            bands: [],
          }
          return withService(
            { ...practice, questionnaires: [...practice.questionnaires, questionnaire] },
            service.id,
            (of) => ({ ...of, questionnaire: id }),
          )
        })
        await navigate(`/questions/${id}`)
      }}
    >
      <Plus size={16} aria-hidden="true" /> Make questions of its own
    </ActButton>
  )
}
