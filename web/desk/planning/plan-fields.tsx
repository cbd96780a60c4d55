import { MOST_PLANNED, RHYTHMS, type Rhythm } from '@acolhida/core/planning'
import { type Practice, serviceOf } from '@acolhida/core/practice'
import type { LocalDate } from '@acolhida/core/time'
import { WindowsEdit } from '../../questions/windows-edit.tsx'
import { DateField, TimeField } from '../parts/date-field.tsx'
import { NumberField } from '../parts/number-field.tsx'
import { asOptions, PlainChoice } from '../parts/plain-field.tsx'
import type { PlanForm } from './use-plan.ts'

const RHYTHM_NAMES: Record<Rhythm, string> = {
  week: 'Each week',
  fortnight: 'Each fortnight',
  month: 'Each month, by weekday',
}

/** What sessions are wished for: of what, how often, from when on, and when they can come. */
export function PlanFields({
  practice,
  form,
  today,
  onChange,
}: {
  practice: Practice
  /** By the clock of the place. */
  today: LocalDate
  form: PlanForm
  onChange: (form: PlanForm) => void
}) {
  const service = serviceOf(practice, form.service)
  const change = (part: Partial<PlanForm>): void => onChange({ ...form, ...part })
  return (
    <div className="mt-2 grid grid-cols-2 gap-3">
      {form.path && (
        <ol className="col-span-2 list-decimal pl-5 text-[14px]">
          {form.path.sessions.map(({ id, service: of, minutes }) => (
            <li key={id}>
              {serviceOf(practice, of)?.name ?? of}, {minutes} min
            </li>
          ))}
        </ol>
      )}
      {!form.path && (
        <div className="col-span-2">
          <PlainChoice
            label="Service"
            value={form.service}
            options={asOptions(practice.services.filter(({ seats }) => seats === 1))}
            onChange={(id) => {
              const next = serviceOf(practice, id)
              if (!next) return
              const place = next.places.includes(form.place) ? form.place : next.places[0]!
              change({ service: id, place, minutes: next.minutes })
            }}
          />
        </div>
      )}
      <div className="col-span-2">
        <PlainChoice
          label="Where"
          value={form.place}
          options={asOptions(practice.places.filter(({ id }) => service?.places.includes(id)))}
          onChange={(place) => change({ place })}
        />
      </div>
      <PlainChoice
        label="How often"
        value={form.rhythm}
        options={RHYTHMS.map((value) => ({ value, name: RHYTHM_NAMES[value] }))}
        onChange={(rhythm) => change({ rhythm: rhythm as Rhythm })}
      />
      {!form.path && (
        <NumberField
          label="How many"
          value={form.count}
          most={MOST_PLANNED}
          onChange={(count) => change({ count })}
        />
      )}
      <div className="col-span-2">
        <DateField label="The first on" value={form.first} onChange={(first) => change({ first })} />
      </div>
      <TimeField label="At" value={form.time} onChange={(time) => change({ time })} />
      {!form.path && (
        <NumberField
          label="Minutes"
          value={form.minutes}
          most={1_440}
          onChange={(minutes) => change({ minutes })}
        />
      )}
      {!form.path && (
        <NumberField
          label="Days apart, at least"
          value={form.least}
          most={60}
          onChange={(least) => change({ least })}
        />
      )}
      <div className="col-span-2">
        <WindowsEdit
          legend="When they can come"
          windows={form.windows}
          today={today}
          onChange={(windows) => change({ windows })}
        />
      </div>
    </div>
  )
}
