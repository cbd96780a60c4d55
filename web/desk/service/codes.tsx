import { usesIn } from '@acolhida/core/booking'
import { signOf } from '@acolhida/core/money'
import type { Practice, PriceCode } from '@acolhida/core/practice'
import { checkPractice } from '@acolhida/core/practice'
import { freeId } from '@acolhida/core/questions'
import { date, dateAt } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { Plus, Trash2 } from 'lucide-react'
import { relayNow } from '../../relay-client/clock.ts'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { ActButton, ProblemNote, useAct } from '../parts/act.tsx'
import { SavedField } from '../parts/saved-field.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { Tick } from '../parts/tick.tsx'
import { currencyOf, homeZone } from '../parts/words.ts'
import { PersonChoice } from '../people/person-choice.tsx'
import { amount, wholeTyped } from '../settings/setting.ts'

const WHAT = 'a price code'

/** Letters and digits that can't be taken for one another: 32, so that each byte chooses evenly. */
const LETTERS = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789'
/** Words for a code that nobody guesses: 40 bits. */
const fewGuess = (): string =>
  [...crypto.getRandomValues(new Uint8Array(8))].map((byte) => LETTERS[byte % LETTERS.length]).join('')

const withCode = (practice: Practice, id: string, change: (code: PriceCode) => PriceCode): Practice => ({
  ...practice,
  codes: (practice.codes ?? []).map((code) => (code.id === id ? change(code) : code)),
})

/** A code with one of its settings, or without it. */
function having<K extends keyof PriceCode>(
  code: PriceCode,
  key: K,
  value: PriceCode[K] | undefined,
): PriceCode {
  const { [key]: _, ...rest } = code
  return (value === undefined ? rest : { ...rest, [key]: value }) as PriceCode
}

/** Words that lower a price, and for whom and how long they do. */
export function Codes() {
  const { practice } = useDesk()
  const usedIn = useLiveQuery(() => db.bookings.orderBy('code').toArray()) ?? []
  const codes = practice.codes ?? []
  const today = dateAt(homeZone(practice), relayNow())
  const faults = checkPractice(practice, today)
  const uses = usesIn(usedIn, relayNow())
  const { code: currency, decimals } = currencyOf(practice.profile.currency)
  const add = (): Promise<void> =>
    changePractice(db, 'a price code added', (p) => {
      const taken = (p.codes ?? []).map((code) => code.id)
      const id = freeId(taken, `code-${taken.length + 1}`)
      const off = { kind: 'share', percent: 100 } as const
      const fresh: PriceCode = { id, code: fewGuess(), off, uses: 1, idle: true }
      return { ...p, codes: [...(p.codes ?? []), fresh] }
    })
  return (
    <SettingsPage
      title="Price codes"
      line="A code takes something off: so a first talk can carry a price, and be given free."
    >
      {codes.length === 0 && (
        <p className="sheet max-w-[820px] p-5">
          Codes will stand here. Clients type them in beside the price.
        </p>
      )}
      <ul className="grid max-w-[900px] gap-3">
        {codes.map((code, i) => {
          const field = (change: (code: PriceCode, typed: string) => PriceCode) => ({
            what: WHAT,
            change: (p: Practice, typed: string) => withCode(p, code.id, (code) => change(code, typed)),
          })
          const used = uses(code.id)
          const members = (key: 'services' | 'people', id: string, on: boolean): Promise<void> =>
            changePractice(db, WHAT, (p) =>
              withCode(p, code.id, (code) => {
                const now = code[key] ?? []
                const next = on ? [...now, id] : now.filter((other) => other !== id)
                return having(code, key, next.length > 0 ? next : undefined)
              }),
            )
          return (
            <li key={code.id}>
              <section className="sheet grid gap-3 p-4" aria-label={`Code ${code.code}`}>
                <div className="grid grid-cols-[1fr_1fr_1fr_auto] items-end gap-3">
                  <SavedField
                    label="Code"
                    value={code.code}
                    {...field((code, typed) => ({ ...code, code: typed.trim() }))}
                  />
                  <SavedField
                    label="Takes off"
                    value={code.off.kind}
                    options={[
                      { value: 'share', name: 'a share of the price' },
                      { value: 'amount', name: 'an amount' },
                    ]}
                    {...field((code, kind) => ({
                      ...code,
                      off: kind === 'share' ? { kind, percent: 100 } : { kind: 'amount', amount: 1_000 },
                    }))}
                  />
                  {code.off.kind === 'share' ? (
                    <SavedField
                      label="How much"
                      suffix="%"
                      type="number"
                      value={String(code.off.percent)}
                      {...field((code, typed) => ({
                        ...code,
                        off: { kind: 'share', percent: wholeTyped(typed) },
                      }))}
                    />
                  ) : (
                    <SavedField
                      label="How much"
                      suffix={signOf(currency)}
                      value={(code.off.amount / 10 ** decimals).toFixed(decimals)}
                      {...field((code, typed) => ({
                        ...code,
                        off: { kind: 'amount', amount: amount(typed, decimals) },
                      }))}
                    />
                  )}
                  <ActButton
                    className="press press-no px-2"
                    aria-label={`Remove code ${code.code}`}
                    onAct={() =>
                      changePractice(db, `code ${code.code} removed`, ({ codes: before = [], ...p }) => {
                        const left = before.filter((other) => other.id !== code.id)
                        return left.length > 0 ? { ...p, codes: left } : p
                      })
                    }
                  >
                    <Trash2 size={16} aria-hidden="true" />
                  </ActButton>
                </div>
                <Tick
                  label="In use: whoever types it pays less"
                  on={!code.idle}
                  onChange={(on) =>
                    changePractice(db, WHAT, (p) =>
                      withCode(p, code.id, (code) => having(code, 'idle', on ? undefined : true)),
                    )
                  }
                />
                <div className="grid grid-cols-3 items-end gap-3">
                  <SavedField
                    label="From"
                    type="date"
                    value={code.from ?? ''}
                    {...field((code, typed) => having(code, 'from', typed ? date(typed) : undefined))}
                  />
                  <SavedField
                    label="Until, that day included"
                    type="date"
                    value={code.to ?? ''}
                    warning={faults.find((fault) => fault.path === `codes[${i}].to`)?.message}
                    {...field((code, typed) => having(code, 'to', typed ? date(typed) : undefined))}
                  />
                  <SavedField
                    label="How many bookings"
                    help={`Used ${used} ${used === 1 ? 'time' : 'times'} so far. Empty: no limit.`}
                    type="number"
                    value={code.uses === undefined ? '' : String(code.uses)}
                    {...field((code, typed) =>
                      having(code, 'uses', typed.trim() ? wholeTyped(typed, 1) : undefined),
                    )}
                  />
                </div>
                <details>
                  <summary className="way cursor-pointer text-[14px]">{forWhat(code, practice)}</summary>
                  <div className="mt-2 grid gap-4 sm:grid-cols-2">
                    <fieldset>
                      <legend className="ask">Only for these services</legend>
                      {practice.services.map((service) => (
                        <Tick
                          key={service.id}
                          label={service.name}
                          on={code.services?.includes(service.id) ?? false}
                          onChange={(on) => members('services', service.id, on)}
                        />
                      ))}
                    </fieldset>
                    <fieldset>
                      <legend className="ask">Only for these people</legend>
                      <Chosen ids={code.people ?? []} onChange={(id, on) => members('people', id, on)} />
                    </fieldset>
                  </div>
                </details>
              </section>
            </li>
          )
        })}
      </ul>
      <ActButton className="press press-go mt-4" onAct={add}>
        <Plus size={16} aria-hidden="true" /> Add a code
      </ActButton>
    </SettingsPage>
  )
}

/** People picked by name or address, and taken out again. */
function Chosen({ ids, onChange }: { ids: string[]; onChange: (id: string, on: boolean) => Promise<void> }) {
  const act = useAct()
  const people = useLiveQuery(() => db.people.bulkGet(ids), [ids.join(' ')]) ?? []
  return (
    <>
      {ids.map((id, i) => (
        <Tick
          key={id}
          label={people[i]?.name ?? 'Somebody who is no longer here'}
          on
          onChange={() => onChange(id, false)}
        />
      ))}
      <PersonChoice
        key={ids.length}
        label="Add somebody"
        onChoose={({ id }) => ids.includes(id) || act.run(() => onChange(id, true))}
      />
      <ProblemNote of={act} />
    </>
  )
}

/** For which services and how many people a code is. */
function forWhat({ services = [], people = [] }: PriceCode, practice: Practice): string {
  const names = practice.services
    .filter((service) => services.includes(service.id))
    .map((service) => service.name)
  const what = names.length > 0 ? `For ${names.join(', ')}` : 'For every service'
  return `${what}, ${people.length === 0 ? 'for everybody' : people.length === 1 ? 'for one person' : `for ${people.length} people`}`
}
