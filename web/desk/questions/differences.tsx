import { differencesBetween, draftOf, type Questionnaire } from '@acolhida/core/questions'

const WORDS = { added: 'new', removed: 'taken away', changed: 'changed', moved: 'moved' } as const

/** In what the version being written differs from the one at the door, each with a jump to its place. */
export function Differences({
  questionnaire,
  onJump,
}: {
  questionnaire: Questionnaire
  onJump: (id: string) => void
}) {
  const found = differencesBetween(questionnaire, draftOf(questionnaire))
  return (
    <section className="sheet p-4 text-[14px]" aria-label="What is different">
      <h2>What is different</h2>
      {found.length === 0 && <p className="mt-1 text-soft">Nothing yet: it is as it stands at your door.</p>}
      <ul className="mt-1 grid gap-1">
        {found.map((difference) => (
          <li
            key={`${difference.how} ${difference.what} ${difference.id ?? difference.name}`}
            className="flex gap-2"
          >
            <span className="w-16 shrink-0 text-soft">{WORDS[difference.how]}</span>
            {difference.id && difference.how !== 'removed' ? (
              <button type="button" className="way text-left" onClick={() => onJump(difference.id!)}>
                {difference.name}
              </button>
            ) : (
              <span>{difference.name}</span>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}
