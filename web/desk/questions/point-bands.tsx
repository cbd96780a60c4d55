import type { Band, Outcome } from '@acolhida/core/questions'
import { Plus, X } from 'lucide-react'
import { ActButton } from '../parts/act.tsx'
import { SavedField } from '../parts/saved-field.tsx'
import { OUTCOME } from '../parts/words.ts'
import { numberTyped } from '../settings/setting.ts'
import { changeDraft, withDraft } from './draft.ts'
import { changedBand } from './lines.ts'

const OUTCOMES: Outcome[] = ['fits', 'look', 'closed']

/** What points come to: a row for each number of points from which something else follows. */
export function PointBands({ id, bands }: { id: string; bands: readonly Band[] }) {
  const field = (at: number, change: (band: Band, typed: string) => Band) => ({
    what: 'what points come to',
    change: (p: Parameters<typeof withDraft>[0], typed: string) =>
      withDraft(p, id, (now) => ({
        ...now,
        bands: changedBand(now.bands, at, (band) => change(band, typed)),
      })),
  })
  const add = (): Promise<void> =>
    changeDraft(id, 'a line of points added', (now) => {
      const last = Math.max(0, ...now.bands.map(({ from }) => from))
      return { ...now, bands: [...now.bands, { from: now.bands.length > 0 ? last + 5 : 5, outcome: 'look' }] }
    })
  return (
    <fieldset>
      <legend className="ask">What points come to</legend>
      <p className="text-[13px] text-soft">
        {bands.length > 0
          ? 'Every line that is reached counts, and the strictest of them decides.'
          : 'Where answers are worth points, say from how many on something follows.'}
      </p>
      <ul className="mt-2 grid gap-2">
        {bands.map((band, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: they are known by their place
          <li key={at} className="grid grid-cols-[90px_1fr_1fr_auto] items-end gap-2">
            <SavedField
              label="From"
              inputMode="decimal"
              value={String(band.from)}
              {...field(at, (band, typed) => ({ ...band, from: numberTyped(typed) }))}
            />
            <SavedField
              label="follows"
              value={band.outcome}
              options={OUTCOMES.map((value) => ({ value, name: OUTCOME[value] }))}
              {...field(at, (band, typed) => ({ ...band, outcome: typed as Outcome }))}
            />
            <SavedField
              label="called"
              value={band.name ?? ''}
              {...field(at, ({ name: _, ...band }, typed) =>
                typed.trim() ? { ...band, name: typed.trim() } : band,
              )}
            />
            <ActButton
              className="press press-no px-2"
              aria-label={`Take away the line from ${band.from} points on`}
              onAct={() =>
                changeDraft(id, 'a line of points taken away', (now) => ({
                  ...now,
                  bands: now.bands.toSpliced(at, 1),
                }))
              }
            >
              <X size={15} aria-hidden="true" />
            </ActButton>
          </li>
        ))}
      </ul>
      <ActButton className="way mt-2 text-[14px]" onAct={add}>
        <Plus size={13} aria-hidden="true" className="inline" /> another line
      </ActButton>
    </fieldset>
  )
}
