import { checkPractice, type Practice } from '@acolhida/core/practice'
import { clockTyped, longWeekdayName, wallTime } from '@acolhida/core/time'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { SavedField } from '../parts/saved-field.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { Switch } from '../parts/switch.tsx'
import { Fields } from '../settings/fields.tsx'
import { MUCH, WORD } from '../settings/limits.ts'

const itself = (practice: Practice, to: (of: Practice) => Practice): Practice => to(practice)

/** Limits that hold for all services, and how requests are answered. */
export function LimitsPage() {
  const { practice } = useDesk()
  const { weekCloses } = practice
  const faults = checkPractice(practice)
  return (
    <SettingsPage title="Limits" line="What holds for all your services.">
      <div className="grid max-w-[1020px] gap-5 lg:grid-cols-2">
        <section className="sheet grid h-fit gap-4 p-5">
          <h2>How much</h2>
          <Fields settings={MUCH} of={practice} practice={practice} change={itself} faults={faults} />
          <SavedField
            label="Between two sessions"
            what="the space between sessions"
            value={practice.space}
            options={[
              { value: 'larger', name: 'The larger of what both keep clear' },
              { value: 'sum', name: 'The sum of what both keep clear' },
            ]}
            change={(p, typed) => ({ ...p, space: typed as Practice['space'] })}
          />
        </section>
        <section className="sheet grid h-fit gap-4 p-5">
          <h2>How soon</h2>
          <Switch
            label="The whole coming week closes at a moment"
            on={weekCloses !== undefined}
            onChange={(on) =>
              changePractice(db, 'when the week closes', (p) => {
                const { weekCloses: _, ...rest } = p
                return on ? { ...rest, weekCloses: { weekday: 4, time: wallTime(720) } } : rest
              })
            }
          />
          {weekCloses && (
            <div className="grid grid-cols-2 gap-4">
              <SavedField
                label="Each"
                what="when the week closes"
                value={String(weekCloses.weekday)}
                options={[1, 2, 3, 4, 5, 6, 7].map((day) => ({
                  value: String(day),
                  name: longWeekdayName(day),
                }))}
                change={(p, day) => ({
                  ...p,
                  weekCloses: { ...(p.weekCloses ?? weekCloses), weekday: Number(day) as 1 },
                })}
              />
              <SavedField
                label="At"
                what="when the week closes"
                value={weekCloses.time}
                change={(p, typed) => ({
                  ...p,
                  weekCloses: { ...(p.weekCloses ?? weekCloses), time: clockTyped(typed) },
                })}
              />
            </div>
          )}
          <p className="text-[13px] text-soft">It replaces the notice of single services.</p>
        </section>
        <section className="sheet grid h-fit gap-4 p-5">
          <h2>Your word</h2>
          <Fields settings={WORD} of={practice} practice={practice} change={itself} faults={faults} />
        </section>
      </div>
    </SettingsPage>
  )
}
