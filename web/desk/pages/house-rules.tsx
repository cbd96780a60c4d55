import { checkPractice, type Practice, placeOf, zoneOf } from '@acolhida/core/practice'
import { addDays, dateAt, dayNumber, longDate, timeAt } from '@acolhida/core/time'
import { LeadLine } from '../../drawings/lead-line.tsx'
import { useMinute } from '../../relay-client/clock.ts'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { ActButton } from '../parts/act.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { Switch } from '../parts/switch.tsx'
import {
  COUNTS,
  LEAD,
  leadWords,
  MOST_LEADS,
  withCounts,
  withLead,
  withLeadAt,
  withoutLead,
} from '../settings/counting.ts'
import { Fields } from '../settings/fields.tsx'
import { AFTER, LATE, MOVING, TIER, withoutTier, withTier } from '../settings/rules.ts'
import { exampleOf } from '../settings/rules-example.ts'
import { WouldHaveCost, WouldHaveLed } from '../settings/would-have-cost.tsx'

const itself = (practice: Practice, to: (of: Practice) => Practice): Practice => to(practice)

/** The most steps that cancelling can have. */
const MOST_TIERS = 6

/** What cancelling, moving and coming late mean, beside what that comes to for one session. */
export function HouseRulesPage() {
  const { practice } = useDesk()
  const { cancel } = practice.houseRules
  const faults = checkPractice(practice)
  const shared = { of: practice, practice, change: itself, faults }
  return (
    <SettingsPage
      title="House rules"
      line="They hold for whoever asks from now on; what is asked for already keeps the rules of its day."
    >
      <Example practice={practice} />
      <div className="mt-5 grid max-w-[1020px] gap-5 lg:grid-cols-2">
        <div className="grid h-fit gap-5">
          <section className="sheet grid h-fit gap-4 p-5">
            <h2>Cancelling</h2>
            {cancel.map((tier, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a step has nothing of its own but its place, counted from the end
              <fieldset key={cancel.length - i} className="grid gap-2 border-b border-line pb-4">
                <legend className="sr-only">Step {i + 1}</legend>
                <Fields
                  settings={TIER}
                  of={tier}
                  practice={practice}
                  faults={faults}
                  path={`houseRules.cancel[${i}]`}
                  change={(p, to) => ({
                    ...p,
                    houseRules: {
                      ...p.houseRules,
                      cancel: p.houseRules.cancel.map((one, at) => (at === i ? to(one) : one)),
                    },
                  })}
                />
                <span>
                  <ActButton
                    className="press press-no"
                    onAct={() => changePractice(db, 'what cancelling costs', (p) => withoutTier(p, i))}
                  >
                    Remove this step
                    <span className="sr-only"> {i + 1}</span>
                  </ActButton>
                </span>
              </fieldset>
            ))}
            <Fields settings={AFTER} {...shared} />
            <WouldHaveCost practice={practice} />
            {cancel.length < MOST_TIERS && (
              <span>
                <ActButton onAct={() => changePractice(db, 'what cancelling costs', withTier)}>
                  Add a step
                </ActButton>
              </span>
            )}
          </section>
          <Counted practice={practice} faults={faults} shared={shared} />
        </div>
        <div className="grid h-fit gap-5">
          <section className="sheet grid h-fit gap-4 p-5">
            <h2>Moving</h2>
            <Fields settings={MOVING} {...shared} />
            <p className="text-[14px] text-soft">
              To a time that is open, at once. Cancelling costs no less after it than it did before.
            </p>
          </section>
          <section className="sheet grid h-fit gap-4 p-5">
            <h2>Coming late</h2>
            <Fields settings={LATE} {...shared} />
          </section>
        </div>
      </div>
    </SettingsPage>
  )
}

/** What is counted of somebody who does not come, and what that leads to. */
function Counted({
  practice,
  faults,
  shared,
}: {
  practice: Practice
  faults: ReturnType<typeof checkPractice>
  shared: { of: Practice; practice: Practice; change: typeof itself }
}) {
  const { counting } = practice.houseRules
  return (
    <section className="sheet grid h-fit gap-4 p-5">
      <h2>Not coming</h2>
      <Switch
        label="What is missed or cancelled late counts"
        on={counting !== undefined}
        onChange={(on) => changePractice(db, 'what counts', (p) => withCounts(p, on))}
      />
      {counting && (
        <>
          <Fields settings={COUNTS} {...shared} faults={faults} />
          {counting.leads.map((lead, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a consequence has nothing of its own but its place
            <fieldset key={i} className="grid gap-2 border-t border-line pt-4">
              <legend className="sr-only">Consequence {i + 1}</legend>
              <p className="font-semibold">{leadWords(lead)}</p>
              <Fields
                settings={LEAD}
                of={lead}
                practice={practice}
                faults={faults}
                path={`houseRules.counting.leads[${i}]`}
                change={(p, to) => withLeadAt(p, i, to)}
              />
              <span>
                <ActButton
                  className="press press-no"
                  onAct={() => changePractice(db, 'what follows', (p) => withoutLead(p, i))}
                >
                  Remove this consequence<span className="sr-only"> {i + 1}</span>
                </ActButton>
              </span>
            </fieldset>
          ))}
          <WouldHaveLed practice={practice} />
          {counting.leads.length < MOST_LEADS && (
            <span>
              <ActButton onAct={() => changePractice(db, 'what follows', withLead)}>
                Add a consequence
              </ActButton>
            </span>
          )}
          <p className="text-[14px] text-soft">
            By the rules of the day somebody asked. On a person’s page you can forgive each one, or make an
            exception of them. What you cancel yourself never counts.
          </p>
        </>
      )}
    </section>
  )
}

/** What the rules come to for a session in a week, if it were asked for now. */
function Example({ practice }: { practice: Practice }) {
  const now = useMinute()
  const where = zoneOf(practice, placeOf(practice, practice.services[0]?.places[0] ?? ''))
  const start = where.toInstant(dayNumber(addDays(dateAt(where, now), 7)), 10 * 60)
  const { marks, lines } = exampleOf(practice.houseRules, start, now, where)
  return (
    <section className="sheet max-w-[1020px] px-4 pt-3 pb-3" aria-label="An example">
      <p className="px-1">
        If somebody asked now for <b>{longDate(dateAt(where, start))}</b> at {timeAt(where, start)}:
      </p>
      <LeadLine marks={marks} now={now} zone={where} />
      <ul className="mt-2 grid gap-0.5 px-1">
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </section>
  )
}
