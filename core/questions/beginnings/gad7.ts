import type { Choice, Question, Questionnaire } from '../types.ts'

const HOW_OFTEN: Choice[] = [
  { id: 'not-at-all', text: 'Not at all', points: 0 },
  { id: 'several-days', text: 'Several days', points: 1 },
  { id: 'more-than-half', text: 'More than half the days', points: 2 },
  { id: 'nearly-every-day', text: 'Nearly every day', points: 3 },
]

const ITEMS = [
  'Feeling nervous, anxious or on edge',
  'Not being able to stop or control worrying',
  'Worrying too much about different things',
  'Trouble relaxing',
  'Being so restless that it is hard to sit still',
  'Becoming easily annoyed or irritable',
  'Feeling afraid as if something awful might happen',
]

/**
 * The GAD-7, a published instrument: R. L. Spitzer, K. Kroenke, J. B. W. Williams, B. Löwe, "A brief measure for
 * assessing generalized anxiety disorder", Arch Intern Med 2006;166(10):1092–1097. No permission is required to
 * reproduce, translate, display or distribute it. Its words and cut points are written here from memory.
 */
export const gad7: Questionnaire = {
  id: 'gad-7',
  name: 'GAD-7',
  version: 1,
  questions: [
    {
      id: 'weeks',
      kind: 'section',
      text: 'The last two weeks',
      help: 'Over the last 2 weeks, how often have you been bothered by the following problems? (GAD-7; Spitzer, Kroenke, Williams and Löwe, 2006)',
      required: false,
    },
    ...ITEMS.map(
      (text, i): Question => ({
        id: `gad-${i + 1}`,
        kind: 'one',
        text,
        required: true,
        private: true,
        eachTime: true,
        choices: HOW_OFTEN,
      }),
    ),
  ],
  rules: [],
  bands: [
    { from: 0, outcome: 'fits', name: 'minimal' },
    { from: 5, outcome: 'fits', name: 'mild' },
    { from: 10, outcome: 'look', name: 'moderate' },
    { from: 15, outcome: 'look', name: 'severe' },
  ],
}
