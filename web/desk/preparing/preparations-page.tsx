import {
  checkPractice,
  documentSize,
  type Practice,
  type Preparation,
  type PreparationKind,
  servicesWith,
  withoutPreparation,
} from '@acolhida/core/practice'
import { sizeInWords } from '@acolhida/core/questions'
import type { TextBlock } from '@acolhida/core/terms'
import { lazy, Suspense, useState } from 'react'
import { Link } from 'react-router'
import { BlocksText } from '../../terms/shown-terms.tsx'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { useSaved } from '../messages/use-saved.ts'
import { ActButton } from '../parts/act.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { Tick } from '../parts/tick.tsx'
import { withService } from '../service/with-service.ts'
import { Fields } from '../settings/fields.tsx'
import { beginPreparation } from './begin.ts'
import { LetterPdf } from './letter-pdf.tsx'
import { preparationSettings } from './settings.ts'
import { withPrepares } from './with-prepares.ts'
import { PREPARES, preparationLine } from './words.ts'

// What writes rich text comes when one writes.
const RichText = lazy(async () => ({ default: (await import('../terms/rich-text.tsx')).RichText }))

const ORDER: readonly PreparationKind[] = ['read', 'sign', 'answer', 'bring', 'tick']

/** What clients read, sign, answer, bring or tick before a session or after it, and with which services it goes out. */
export function PreparationsPage() {
  const { practice } = useDesk()
  const [open, setOpen] = useState<string>()
  const all = practice.preparations ?? []
  const add = (is: PreparationKind): Promise<void> =>
    changePractice(db, 'something to prepare', (p) => {
      const begun = beginPreparation(p, is)
      if (!begun)
        throw new Error(
          is === 'sign'
            ? 'There is no text to sign yet. Please write one under Terms first.'
            : 'There are no questions yet. Please write some under Questions first.',
        )
      setOpen(begun.id)
      return { ...p, preparations: [...(p.preparations ?? []), begun] }
    })
  return (
    <SettingsPage
      title="What clients prepare"
      line="It goes out in one message, and stands on one page of theirs."
    >
      <p className="mb-4">
        <Link className="way" to="/people/preparing">
          See how far everybody is
        </Link>
      </p>
      <div className="grid max-w-[900px] gap-4">
        {all.length === 0 && (
          <p className="sheet p-5 text-soft">
            Letters, texts to sign, questionnaires, files and other things to do will stand here. Begin with a
            letter that says how to reach you: its text is there already.
          </p>
        )}
        {all.map((one) => (
          <OnePreparation
            key={one.id}
            practice={practice}
            one={one}
            open={open === one.id}
            toggle={() => setOpen(open === one.id ? undefined : one.id)}
          />
        ))}
        <section className="sheet p-5" aria-label="Add something">
          <h2>Add something</h2>
          <div className="mt-2 flex flex-wrap gap-2">
            {ORDER.map((is) => (
              <ActButton key={is} onAct={() => add(is)}>
                {PREPARES[is].name}
              </ActButton>
            ))}
          </div>
        </section>
      </div>
    </SettingsPage>
  )
}

function OnePreparation({
  practice,
  one,
  open,
  toggle,
}: {
  practice: Practice
  one: Preparation
  open: boolean
  toggle: () => void
}) {
  const services = servicesWith(practice, one.id)
  const at = (practice.preparations ?? []).indexOf(one)
  const faults = checkPractice(practice)
  const path = `preparations[${at}]`
  const wrong = faults.find((fault) => fault.path.startsWith(`${path}.`))
  const change = (p: Practice, to: (of: Preparation) => Preparation): Practice => ({
    ...p,
    preparations: (p.preparations ?? []).map((other) => (other.id === one.id ? to(other) : other)),
  })
  return (
    <section className="sheet p-5" aria-label={one.name}>
      <div className="flex flex-wrap items-start justify-between gap-3">
        <div className="min-w-0">
          <h2 className="wrap-anywhere">{one.name}</h2>
          <p className="text-[14px] text-soft">{preparationLine(one)}</p>
          <p className="text-[14px]">
            {services.length === 0
              ? 'Goes out with no service; you can give it to one person.'
              : `Goes out with ${services.map(({ name }) => name).join(', ')}.`}
          </p>
          {wrong && !open && <p className="mt-1 text-[14px] font-semibold text-clay">{wrong.message}</p>}
        </div>
        <button type="button" className="press" aria-expanded={open} onClick={toggle}>
          {open ? 'Fold up' : 'Change'} <span className="sr-only">{one.name}</span>
        </button>
      </div>
      {open && (
        <div className="mt-4 grid gap-4 border-t border-line pt-4">
          <Fields
            settings={preparationSettings(practice)}
            of={one}
            practice={practice}
            change={change}
            faults={faults}
            path={path}
          />
          {one.is === 'read' && <Letter practice={practice} one={one} change={change} />}
          <fieldset className="grid gap-1">
            <legend className="ask">Goes out with each booking of</legend>
            {practice.services.map((service) => (
              <Tick
                key={service.id}
                label={service.name}
                on={service.prepares?.includes(one.id) ?? false}
                onChange={(on) =>
                  changePractice(db, 'what goes out with a service', (p) =>
                    withService(p, service.id, (of) => withPrepares(p, of, one.id, on)),
                  )
                }
              />
            ))}
          </fieldset>
          <span>
            <ActButton
              className="press press-no"
              onAct={() => changePractice(db, `${one.name} removed`, (p) => withoutPreparation(p, one.id))}
            >
              Remove it from my practice
            </ActButton>
            <span className="ml-3 text-[14px] text-soft">Whoever was given it need not do it any more.</span>
          </span>
        </div>
      )}
    </section>
  )
}

/** What a letter says, and how it is read. */
function Letter({
  practice,
  one,
  change,
}: {
  practice: Practice
  one: Extract<Preparation, { is: 'read' }>
  change: (p: Practice, to: (of: Preparation) => Preparation) => Practice
}) {
  const text = useSaved((typed) =>
    changePractice(db, 'a letter', (p) =>
      change(p, (of) => (of.is === 'read' ? { ...of, text: JSON.parse(typed) as TextBlock[] } : of)),
    ),
  )
  return (
    <div className="grid gap-3 lg:grid-cols-2">
      <div>
        <Suspense fallback={<p className="text-soft">One moment …</p>}>
          <RichText
            label="What the letter says"
            value={one.text}
            fields={false}
            onChange={(blocks) => text.type(JSON.stringify(blocks))}
          />
        </Suspense>
        {text.problem && (
          <p role="alert" className="mt-1 text-[14px] font-semibold text-clay">
            {text.problem} It stays here.
          </p>
        )}
        <LetterPdf practice={practice} one={one} change={change} />
      </div>
      <div>
        <h3 className="text-[14px]">As they read it</h3>
        <div dir="auto" className="mt-1 rounded-lg border border-line bg-paper p-4 wrap-anywhere">
          <BlocksText blocks={one.text} />
          {one.document && (
            <p className="mt-2 font-semibold">
              {one.document.name} ({sizeInWords(documentSize(one.document))}), to save and open
            </p>
          )}
        </div>
      </div>
    </div>
  )
}
