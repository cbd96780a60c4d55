import type { Practice } from '@acolhida/core/practice'
import type { Question } from '@acolhida/core/questions'
import { expect } from 'vitest'
import { packOf, publishTo } from './inside.ts'
import { ANSWERS, freshVisit, startRelay, type TestRelay } from './setup.ts'

/** The demo with a recording to send, a private question, answers that may be read again, and price codes. */
function withMore(practice: Practice): Practice {
  const more: Question[] = [
    { id: 'part', kind: 'section', text: 'Two more things', required: false },
    {
      id: 'recording',
      kind: 'file',
      text: 'A recording?',
      required: false,
      accepts: ['sound'],
      mostBytes: 4_096,
    },
    { id: 'ill', kind: 'yesno', text: 'Are you ill?', required: false, private: true },
    { id: 'since', kind: 'short', text: 'What is new since?', required: true, when: { person: 'known' } },
    {
      id: 'mood',
      kind: 'one',
      text: 'How are you?',
      required: false,
      shownAgain: true,
      choices: [{ id: 'well', text: 'Well', points: 7 }],
    },
  ]
  return {
    ...practice,
    questionnaires: practice.questionnaires.map((questionnaire) =>
      questionnaire.id === 'voice-questions'
        ? { ...questionnaire, questions: [...questionnaire.questions, ...more] }
        : questionnaire,
    ),
    codes: [
      { id: 'once', code: 'ONCE', off: { kind: 'share', percent: 100 }, uses: 1 },
      { id: 'ten', code: 'TEN', off: { kind: 'amount', amount: 1_000 }, services: ['voice-assessment'] },
      { id: 'own', code: 'OWN', off: { kind: 'amount', amount: 500 }, people: ['nobody'] },
    ],
  }
}

/** A relay whose practice asks more than the demo. */
export async function startMore(): Promise<TestRelay> {
  const house = await startRelay()
  const pack = packOf(house.relay)
  publishTo(house.relay, { ...pack, practice: withMore(pack.practice) })
  return house
}

/** What a visit says of a voice assessment. */
export const said = (change: object = {}) => ({
  visit: freshVisit(),
  service: 'voice-assessment',
  answers: ANSWERS,
  ...change,
})

/** The newest mail to an address, once it has gone out. */
export async function posted(house: TestRelay, address: string) {
  const mails = () => house.mailbox.received.filter((mail) => mail.to.includes(address))
  await house.relay.rounds.turn()
  await expect.poll(() => mails().length, { timeout: 5_000 }).toBeGreaterThan(0)
  return mails().at(-1)!
}
