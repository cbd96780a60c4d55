import { checkPractice, type Practice } from '@acolhida/core/practice'
import { duration, longWeekdayName, wallTime } from '@acolhida/core/time'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { SavedField } from '../parts/saved-field.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { Switch } from '../parts/switch.tsx'
import { Fields } from '../settings/fields.tsx'
import { clock, type Setting, under } from '../settings/setting.ts'

type Answering = Practice['answering']

const most = (label: string, key: 'perDay' | 'perWeek'): Setting<Practice> => ({
  label,
  what: 'a limit',
  is: 'limit',
  help: 'Empty: no limit.',
  path: `limits.${key}`,
  read: ({ limits }) => limits[key],
  write: (practice, value) => ({
    ...practice,
    limits: under<Practice['limits'], typeof key>(key).write(practice.limits, value),
  }),
})

/** How much, in all services together. */
const MUCH: readonly Setting<Practice>[] = [
  most('Sessions a day', 'perDay'),
  most('Sessions a week', 'perWeek'),
  {
    label: 'Open requests of one person',
    what: 'a limit',
    is: 'whole',
    least: 1,
    path: 'limits.openRequests',
    read: ({ limits }) => limits.openRequests,
    write: (practice, openRequests = 1) => ({ ...practice, limits: { ...practice.limits, openRequests } }),
  },
  {
    label: 'Too short to use',
    what: 'the shortest usable time',
    is: 'whole',
    suffix: 'min',
    help: 'Below this a gap is of no use.',
    ...under<Practice, 'shortestUsable'>('shortestUsable'),
  },
]

const answering = (
  label: string,
  key: 'answerTime' | 'wordLead' | 'leastAnswerTime' | 'proofTime',
  least: number,
  what = 'the answer time',
): Setting<Practice> => ({
  label,
  what,
  is: 'duration',
  least,
  path: `answering.${key}`,
  read: (practice) => practice.answering[key] ?? duration('PT30M'),
  write: (practice, value) => ({
    ...practice,
    answering: under<Answering, typeof key>(key).write(practice.answering, value),
  }),
})

/** How long requests wait. */
const WORD: readonly Setting<Practice>[] = [
  answering('A request waits for it', 'answerTime', 1),
  answering('But never nearer to the session than', 'wordLead', 0),
  answering('And at least', 'leastAnswerTime', 1),
  answering(
    'Before it waits, the link in their mail must be opened within',
    'proofTime',
    1,
    'the time to open the mailed link',
  ),
]

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
                  weekCloses: { ...(p.weekCloses ?? weekCloses), time: clock(typed) },
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
