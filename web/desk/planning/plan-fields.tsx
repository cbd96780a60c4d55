import { MOST_PLANNED, RHYTHMS, type Rhythm } from '@acolhida/core/planning'
import { type Practice, serviceOf } from '@acolhida/core/practice'
import { type Weekday, weekdayName } from '@acolhida/core/time'
import { DateField, TimeField } from '../parts/date-field.tsx'
import { asOptions, PlainChoice } from '../parts/plain-field.tsx'
import type { PlanForm } from './use-plan.ts'

const RHYTHM_NAMES: Record<Rhythm, string> = {
  week: 'Each week',
  fortnight: 'Each fortnight',
  month: 'Each month, by weekday',
}

const WEEK: readonly Weekday[] = [1, 2, 3, 4, 5, 6, 7]

/** A whole number in a form. */
const NumberField = ({
  label,
  value,
  least = 1,
  most,
  onChange,
}: {
  label: string
  value: number
  least?: number
  most: number
  onChange: (value: number) => void
}) => (
  <label className="ask">
    {label}
    <input
      type="number"
      min={least}
      max={most}
      className="field mt-1"
      value={value || ''}
      onChange={(event) => onChange(Number(event.target.value))}
    />
  </label>
)

/** What sessions are wished for: of what, how often, from when on, and when they can come. */
export function PlanFields({
  practice,
  form,
  onChange,
}: {
  practice: Practice
  form: PlanForm
  onChange: (form: PlanForm) => void
}) {
  const service = serviceOf(practice, form.service)
  const change = (part: Partial<PlanForm>): void => onChange({ ...form, ...part })
  return (
    <div className="mt-2 grid grid-cols-2 gap-3">
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
      <NumberField
        label="How many"
        value={form.count}
        most={MOST_PLANNED}
        onChange={(count) => change({ count })}
      />
      <div className="col-span-2">
        <DateField label="The first on" value={form.first} onChange={(first) => change({ first })} />
      </div>
      <TimeField label="At" value={form.time} onChange={(time) => change({ time })} />
      <NumberField
        label="Minutes"
        value={form.minutes}
        most={1_440}
        onChange={(minutes) => change({ minutes })}
      />
      <fieldset className="col-span-2">
        <legend className="ask">When they can come</legend>
        <div className="mt-1 grid grid-cols-7 gap-1">
          {WEEK.map((day) => {
            const on = form.days.includes(day)
            return (
              <button
                key={day}
                type="button"
                className="press px-0"
                aria-pressed={on}
                onClick={() =>
                  change({ days: on ? form.days.filter((one) => one !== day) : [...form.days, day].sort() })
                }
              >
                {weekdayName(day)}
              </button>
            )
          })}
        </div>
        <p className="mt-1 text-[13px] text-soft">
          {form.days.length === 0 ? 'Any day of the week.' : 'These days alone.'} Two sessions lie at least so
          many days apart.
        </p>
        <div className="mt-2 grid grid-cols-3 gap-3">
          <TimeField label="From" value={form.from} onChange={(from) => change({ from })} />
          <TimeField label="Until" value={form.to} onChange={(to) => change({ to })} />
          <NumberField
            label="Days apart"
            value={form.least}
            most={60}
            onChange={(least) => change({ least })}
          />
        </div>
      </fieldset>
    </div>
  )
}
