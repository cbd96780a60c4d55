import { publishDraft, type Questionnaire } from '@acolhida/core/questions'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { withQuestionnaire } from './draft.ts'

/** Publishes the version being written, or puts it aside; until then the door keeps what it has. */
export function Publish({
  questionnaire,
  faults,
}: {
  questionnaire: Questionnaire
  /** How many things stand in the way. */
  faults: number
}) {
  const act = useAct()
  const change = (what: string, next: (questionnaire: Questionnaire) => Questionnaire): void => {
    act.run(() => changePractice(db, what, (p) => withQuestionnaire(p, questionnaire.id, next)))
  }
  return (
    <div className="flex flex-wrap items-center gap-2.5">
      <button
        type="button"
        className="press press-go"
        disabled={faults > 0}
        onClick={() => change(`${questionnaire.name} published`, publishDraft)}
      >
        Publish as version {questionnaire.version + 1}
      </button>
      <button
        type="button"
        className="press press-no"
        onClick={() => change('a draft put aside', ({ draft: _, ...rest }) => rest)}
      >
        Leave it as it was
      </button>
      {faults > 0 && (
        <span role="status" className="text-[14px] font-semibold text-clay">
          {faults === 1 ? 'One thing stands' : `${faults} things stand`} in the way, marked beside.
        </span>
      )}
      <ProblemNote of={act.problem ? { problem: `${act.problem} Nothing has changed at your door.` } : act} />
    </div>
  )
}
