import { oddFigures, type Practice, type Service } from '@acolhida/core/practice'
import { blocksText, type Clause } from '@acolhida/core/terms'
import { GripVertical } from 'lucide-react'
import { newKey } from '../../relay-client/client.ts'
import { PlainField } from '../parts/plain-field.tsx'
import { SortableList, useSortableRow } from '../parts/sortable-list.tsx'
import { RichText } from './rich-text.tsx'

/** Clauses being written: put in order, each with its title, its text, and that in one line. */
export function Clauses({
  practice,
  services,
  clauses,
  onChange,
}: {
  practice: Practice
  /** The services whose clients agree to it: their rules its figures are looked at by. */
  services: readonly Service[]
  clauses: Clause[]
  onChange: (change: (clauses: Clause[]) => Clause[]) => void
}) {
  const blank = (): Clause => ({ id: `clause-${newKey().slice(0, 8)}`, title: '', short: '', text: [] })
  return (
    <>
      <SortableList
        items={clauses.map(({ id, title }) => ({ id, name: title || 'A clause' }))}
        onMove={(from, to) =>
          onChange((before) => {
            const next = [...before]
            const [moved] = next.splice(from, 1)
            if (moved) next.splice(to, 0, moved)
            return next
          })
        }
      >
        {clauses.map((clause, i) => (
          <Row
            key={clause.id}
            nth={i + 1}
            practice={practice}
            services={services}
            clause={clause}
            onChange={(next) =>
              onChange((before) => before.map((one) => (one.id === clause.id ? { ...one, ...next } : one)))
            }
            onRemove={() => onChange((before) => before.filter((one) => one.id !== clause.id))}
          />
        ))}
      </SortableList>
      <button type="button" className="press mt-3" onClick={() => onChange((before) => [...before, blank()])}>
        Add a clause
      </button>
    </>
  )
}

function Row({
  nth,
  practice,
  services,
  clause,
  onChange,
  onRemove,
}: {
  nth: number
  practice: Practice
  services: readonly Service[]
  clause: Clause
  onChange: (part: Partial<Clause>) => void
  onRemove: () => void
}) {
  const { box, handle } = useSortableRow(clause.id)
  const odd = [...new Set(oddFigures(practice, services, `${blocksText(clause.text)}\n${clause.short}`))]
  const name = clause.title || `clause ${nth}`
  return (
    <li ref={box.ref} style={box.style} className={box.className}>
      <div className="sheet grid gap-3 p-4">
        <div className="flex items-end gap-2">
          <button
            type="button"
            className="press press-quiet cursor-grab px-2"
            aria-label={`Move ${name}`}
            {...handle}
          >
            <GripVertical size={16} aria-hidden="true" />
          </button>
          <div className="min-w-0 grow">
            <PlainField
              label={`Title of clause ${nth}`}
              value={clause.title}
              onChange={(title) => onChange({ title })}
            />
          </div>
          <button type="button" className="press press-no" onClick={onRemove}>
            Remove<span className="sr-only"> {name}</span>
          </button>
        </div>
        <RichText label={`Text of ${name}`} value={clause.text} onChange={(text) => onChange({ text })} />
        <PlainField
          label="In short, in one line"
          value={clause.short}
          onChange={(short) => onChange({ short })}
        />
        {odd.length > 0 && (
          <p className="note bg-sun-soft text-sun-ink">
            {odd.map((one) => `“${one}”`).join(', ')} {odd.length === 1 ? 'is' : 'are'} typed, and no house
            rule says so. A field would fill in the rule itself, and change with it.
          </p>
        )}
      </div>
    </li>
  )
}
