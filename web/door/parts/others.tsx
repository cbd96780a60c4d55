import { isMail, nameProblem } from '@acolhida/core/people'
import { holdsHtml } from '@acolhida/core/questions'
import type { TypedOther, TypedOthers } from '../visit/contact.ts'
import { say } from './say.ts'
import { TextField } from './text-field.tsx'

export const OTHER_FIELDS = ['comes-name', 'comes-email', 'pays-name', 'pays-email'] as const
export type OtherField = (typeof OTHER_FIELDS)[number]

/** What is wrong with who else it concerns, by its fields. */
export function othersProblems({ comes, pays }: TypedOthers = {}): Partial<Record<OtherField, string>> {
  return { ...problemsOf('comes', comes, comes?.reminded || comes?.agrees), ...problemsOf('pays', pays) }
}

function problemsOf(
  part: 'comes' | 'pays',
  other: TypedOther | undefined,
  reached = false,
): Partial<Record<OtherField, string>> {
  if (!other) return {}
  const { name, email } = other
  const named = name.trim() && !holdsHtml(name) && !nameProblem(name)
  const mailed = email.trim() ? isMail(email) : !reached
  return {
    ...(named ? {} : { [`${part}-name`]: say('others.bad-name') }),
    ...(mailed ? {} : { [`${part}-email`]: say(email.trim() ? 'terms.bad-mail' : 'others.no-mail') }),
  }
}

/** Who comes, and who pays, where that is somebody else than who asks. */
export function WhoElse({
  others,
  wrong,
  onChange,
}: {
  others: TypedOthers
  wrong: Partial<Record<OtherField, string>>
  onChange: (others: TypedOthers, field?: OtherField) => void
}) {
  const { comes, pays } = others
  const set = (part: 'comes' | 'pays', other: TypedOther | undefined, field?: OtherField): void => {
    const { [part]: _, ...rest } = others
    onChange(other ? { ...rest, [part]: other } : rest, field)
  }
  const fields = (part: 'comes' | 'pays', other: TypedOther, label: string) => (
    <div className="grid gap-4 sm:grid-cols-2">
      <TextField
        field={`${part}-name` as OtherField}
        label={label}
        autoComplete="off"
        value={other.name}
        problem={wrong[`${part}-name`]}
        onChange={(field, name) => set(part, { ...other, name }, field)}
      />
      <TextField
        field={`${part}-email` as OtherField}
        label={say('others.mail')}
        optional={!other.reminded && !other.agrees}
        type="email"
        autoComplete="off"
        value={other.email}
        problem={wrong[`${part}-email`]}
        onChange={(field, email) => set(part, { ...other, email }, field)}
      />
    </div>
  )
  return (
    <div className="grid gap-1 border-t border-line pt-2 sm:col-span-2">
      <Ticked
        label={say('others.comes')}
        on={comes !== undefined}
        onChange={(on) => set('comes', on ? { name: '', email: '' } : undefined)}
      />
      {comes && (
        <div className="mb-2 grid gap-1 pl-9">
          {fields('comes', comes, say('others.comes-name'))}
          <Ticked
            label={say('others.reminded')}
            on={comes.reminded === true}
            onChange={(reminded) => set('comes', { ...comes, reminded }, 'comes-email')}
          />
          <Ticked
            label={say('others.agrees')}
            on={comes.agrees === true}
            onChange={(agrees) => set('comes', { ...comes, agrees }, 'comes-email')}
          />
        </div>
      )}
      <Ticked
        label={say('others.pays')}
        on={pays !== undefined}
        onChange={(on) => set('pays', on ? { name: '', email: '' } : undefined)}
      />
      {pays && <div className="mb-2 pl-9">{fields('pays', pays, say('others.pays-name'))}</div>}
    </div>
  )
}

const Ticked = ({ label, on, onChange }: { label: string; on: boolean; onChange: (on: boolean) => void }) => (
  <label className="flex min-h-[44px] cursor-pointer items-center gap-3">
    <input
      type="checkbox"
      className="checkbox checkbox-primary"
      checked={on}
      onChange={(event) => onChange(event.target.checked)}
    />
    {label}
  </label>
)
