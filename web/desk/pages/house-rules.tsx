import {
  checkPractice,
  type HouseRules,
  type Practice,
  placeOf,
  type Service,
  zoneOf,
} from '@acolhida/core/practice'
import { addDays, dateAt, dayNumber, longDate, timeAt } from '@acolhida/core/time'
import { useSearchParams } from 'react-router'
import { LeadLine } from '../../drawings/lead-line.tsx'
import { useMinute } from '../../relay-client/clock.ts'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { ActButton } from '../parts/act.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { Switch } from '../parts/switch.tsx'
import { withService } from '../service/with-service.ts'
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
import { AFTER, LATE, MOVING, MY_SIDE, TIER, withMine, withoutTier, withTier } from '../settings/rules.ts'
import { exampleOf } from '../settings/rules-example.ts'
import { WouldHaveCost, WouldHaveLed } from '../settings/would-have-cost.tsx'

type ChangeIn = (practice: Practice, to: (of: Practice) => Practice) => Practice

const withoutCounting = ({ counting: _, ...rules }: HouseRules): HouseRules => rules

/** The practice as if the rules of a service were its own: so they are shown and changed in the same way. */
const scopeOf = (practice: Practice, service: Service | undefined): Practice =>
  service?.houseRules ? { ...practice, houseRules: service.houseRules } : practice

/** Changes the rules of the practice, or those of a service. */
const changeIn =
  (service: Service | undefined): ChangeIn =>
  (practice, to) => {
    if (!service) return to(practice)
    return withService(practice, service.id, (own) => ({
      ...own,
      houseRules: to(scopeOf(practice, own)).houseRules,
    }))
  }

/** The most steps that cancelling can have. */
const MOST_TIERS = 6

/** What cancelling, moving and coming late mean, beside what that comes to for one session. */
export function HouseRulesPage() {
  const { practice } = useDesk()
  const [search, setSearch] = useSearchParams()
  const service = practice.services.find(({ id }) => id === search.get('of'))
  const scoped = scopeOf(practice, service)
  const { cancel } = scoped.houseRules
  // What is wrong with the rules of a service is shown where they are.
  const at = `services[${practice.services.findIndex(({ id }) => id === service?.id)}].`
  const faults = checkPractice(practice).flatMap((fault) =>
    !service ? [fault] : fault.path.startsWith(at) ? [{ ...fault, path: fault.path.slice(at.length) }] : [],
  )
  const change = changeIn(service)
  const shared = { of: scoped, practice, change, faults }
  const own = service?.houseRules !== undefined
  const set = (what: string, to: (of: Practice) => Practice): Promise<void> =>
    changePractice(db, what, (p) => change(p, to))
  return (
    <SettingsPage
      title="House rules"
      line="They hold for whoever asks from now on; what is asked for already keeps the rules of its day."
    >
      <div className="mb-4 flex flex-wrap items-center gap-4">
        <label className="flex items-center gap-2">
          Rules of
          <select
            className="field w-auto"
            value={service?.id ?? ''}
            onChange={(event) => setSearch(event.target.value ? { of: event.target.value } : {})}
          >
            <option value="">the whole practice</option>
            {practice.services.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
        {service && (
          <Switch
            label="It has rules of its own"
            on={own}
            onChange={(on) =>
              changePractice(db, 'rules of its own', (p) =>
                withService(p, service.id, ({ houseRules: _, ...rest }) =>
                  on ? { ...rest, houseRules: withoutCounting(p.houseRules) } : rest,
                ),
              )
            }
          />
        )}
      </div>
      <Example practice={scoped} />
      {service && !own && (
        <p className="mt-3 text-soft">For {service.name}, the rules of the whole practice hold.</p>
      )}
      {service && service.seats > 1 && (
        <p className="mt-3 max-w-[1020px]">
          Each seat is cancelled and moved by itself, under these rules. A date that you call off, or that too
          few come to, costs nobody anything and counts against nobody.
        </p>
      )}
      {(!service || own) && (
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
                      onAct={() => set('what cancelling costs', (of) => withoutTier(of, i))}
                    >
                      Remove this step
                      <span className="sr-only"> {i + 1}</span>
                    </ActButton>
                  </span>
                </fieldset>
              ))}
              <Fields settings={AFTER} {...shared} />
              {!service && <WouldHaveCost practice={practice} />}
              {cancel.length < MOST_TIERS && (
                <span>
                  <ActButton onAct={() => set('what cancelling costs', withTier)}>Add a step</ActButton>
                </span>
              )}
            </section>
            {!service && <Counted practice={practice} faults={faults} shared={shared} />}
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
            <section className="sheet grid h-fit gap-4 p-5">
              <h2>My side of it</h2>
              <Switch
                label="I promise something, too"
                on={scoped.houseRules.mine !== undefined}
                onChange={(on) => set('my side of it', (of) => withMine(of, on))}
              />
              {scoped.houseRules.mine && (
                <>
                  <Fields settings={MY_SIDE} {...shared} />
                  <p className="text-[14px] text-soft">
                    Clients read it before they agree. What they get is counted in their money by itself.
                  </p>
                </>
              )}
            </section>
          </div>
        </div>
      )}
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
  shared: { of: Practice; practice: Practice; change: ChangeIn }
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
