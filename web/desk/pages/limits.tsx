import type { Practice } from '@acolhida/core/practice'
import { duration, longWeekdayName, wallTime } from '@acolhida/core/time'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { SavedField } from '../parts/saved-field.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { Switch } from '../parts/switch.tsx'
import { clock, limit, whole } from '../service/fields.ts'

const hours = (iso: string): string =>
  String(Number(/^PT(\d+)H$/.exec(iso)?.[1] ?? Number(/^PT(\d+)M$/.exec(iso)?.[1] ?? 0) / 60))
const minutes = (iso: string): string => String(Number(hours(iso)) * 60)

function withLimit(practice: Practice, key: 'perDay' | 'perWeek', typed: string): Practice {
  const { [key]: _, ...rest } = practice.limits
  return { ...practice, limits: typed.trim() === '' ? rest : { ...rest, [key]: limit(typed) } }
}

/** Limits that hold for all services, and how requests are answered. */
export function Limits() {
  const { practice } = useDesk()
  const { limits, answering, weekCloses } = practice
  const answer =
    (part: Partial<Practice['answering']>) =>
    (p: Practice): Practice => ({ ...p, answering: { ...p.answering, ...part } })
  return (
    <SettingsPage title="Limits" line="What holds for all your services.">
      <div className="grid max-w-[1020px] gap-5 lg:grid-cols-2">
        <section className="sheet grid h-fit gap-4 p-5">
          <h2>How much</h2>
          <div className="grid grid-cols-2 items-end gap-4">
            <SavedField
              label="Sessions a day"
              help="Empty: no limit."
              type="number"
              what="a limit"
              value={String(limits.perDay ?? '')}
              change={(p, typed) => withLimit(p, 'perDay', typed)}
            />
            <SavedField
              label="Sessions a week"
              help="Empty: no limit."
              type="number"
              what="a limit"
              value={String(limits.perWeek ?? '')}
              change={(p, typed) => withLimit(p, 'perWeek', typed)}
            />
            <SavedField
              label="Open requests of one person"
              type="number"
              what="a limit"
              value={String(limits.openRequests)}
              change={(p, typed) => ({ ...p, limits: { ...p.limits, openRequests: whole(typed, 1) } })}
            />
            <SavedField
              label="Too short to use"
              help="Below this a gap is of no use."
              suffix="min"
              type="number"
              what="the shortest usable time"
              value={String(practice.shortestUsable)}
              change={(p, typed) => ({ ...p, shortestUsable: whole(typed) })}
            />
          </div>
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
                  weekCloses: { ...(p.weekCloses ?? weekCloses), time: clock(typed) },
                })}
              />
            </div>
          )}
          <p className="text-[13px] text-soft">It replaces the notice of single services.</p>
        </section>
        <section className="sheet grid h-fit gap-4 p-5">
          <h2>Your word</h2>
          <SavedField
            label="A request waits for it"
            suffix="hours"
            type="number"
            what="the answer time"
            value={hours(answering.answerTime)}
            change={(p, typed) => answer({ answerTime: duration(`PT${whole(typed, 1)}H`) })(p)}
          />
          <SavedField
            label="But never nearer to the session than"
            suffix="hours"
            type="number"
            what="the answer time"
            value={hours(answering.wordLead)}
            change={(p, typed) => answer({ wordLead: duration(`PT${whole(typed)}H`) })(p)}
          />
          <SavedField
            label="And at least"
            suffix="min"
            type="number"
            what="the answer time"
            value={minutes(answering.leastAnswerTime)}
            change={(p, typed) => answer({ leastAnswerTime: duration(`PT${whole(typed, 1)}M`) })(p)}
          />
          <SavedField
            label="Before it waits, the link in their mail must be opened within"
            suffix="min"
            type="number"
            what="the time to open the mailed link"
            value={minutes(answering.proofTime ?? duration('PT30M'))}
            change={(p, typed) => answer({ proofTime: duration(`PT${whole(typed, 1)}M`) })(p)}
          />
        </section>
      </div>
    </SettingsPage>
  )
}
