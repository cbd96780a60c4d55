import type { Questionnaire } from '@acolhida/core/questions'

const firstQuestions: Questionnaire = {
  id: 'first-questions',
  name: 'First conversation',
  version: 2,
  bands: [],
  questions: [
    {
      id: 'brings',
      kind: 'long',
      text: 'What brings you here?',
      help: 'A few words are enough.',
      required: true,
      leastWords: 4,
    },
    {
      id: 'for-whom',
      kind: 'one',
      text: 'Whose voice is it about?',
      required: true,
      choices: [
        { id: 'mine', text: 'My own' },
        { id: 'child', text: 'My child’s' },
        { id: 'team', text: 'A team’s or a class’s' },
      ],
    },
    {
      id: 'age',
      kind: 'number',
      text: 'How old is your child?',
      required: true,
      least: 1,
      most: 17,
      unit: 'years',
      whole: true,
      when: { question: 'for-whom', is: '=', value: 'child' },
    },
    { id: 'occasion', kind: 'date', text: 'Is there a date you are working towards?', required: false },
    { id: 'page', kind: 'url', text: 'Is there a page where I can see or hear you?', required: false },
    {
      id: 'health',
      kind: 'short',
      text: 'Is there anything about your health that I should know?',
      required: false,
      private: true,
    },
  ],
  rules: [
    {
      id: 'young-child',
      name: 'Children under ten',
      when: { question: 'age', is: '<', value: 10 },
      effect: {
        do: 'close',
        message:
          'Young voices grow so fast that they belong with somebody who works with children every day. I would not do yours justice.',
        services: [],
        enquiry: true,
      },
    },
    {
      id: 'whole-team',
      name: 'A whole team',
      when: { question: 'for-whom', is: '=', value: 'team' },
      effect: { do: 'look', note: 'Teams need another kind of offer.' },
    },
  ],
}

const voiceQuestions: Questionnaire = {
  id: 'voice-questions',
  name: 'Before an assessment',
  version: 4,
  bands: [],
  questions: [
    {
      id: 'brings',
      kind: 'long',
      text: 'What brings you here?',
      help: 'In your own words; one or two sentences.',
      required: true,
      leastWords: 5,
    },
    {
      id: 'uses',
      kind: 'several',
      text: 'Where do you need your voice?',
      required: true,
      least: 1,
      choices: [
        { id: 'teaching', text: 'Teaching' },
        { id: 'stage', text: 'On a stage' },
        { id: 'calls', text: 'On calls' },
        { id: 'singing', text: 'Singing' },
        { id: 'elsewhere', text: 'Elsewhere' },
      ],
    },
    {
      id: 'hoarse',
      kind: 'one',
      text: 'How long have you been hoarse?',
      required: true,
      choices: [
        { id: 'not', text: 'I am not hoarse' },
        { id: 'short', text: 'Up to 3 weeks' },
        { id: 'long', text: 'More than 3 weeks' },
      ],
    },
    {
      id: 'doctor',
      kind: 'yesno',
      text: 'Has a doctor looked at your throat?',
      required: true,
      when: { question: 'hoarse', is: '=', value: 'long' },
    },
    {
      id: 'strain',
      kind: 'scale',
      text: 'How tired is your voice in the evening?',
      required: true,
      least: 0,
      most: 10,
      leastName: 'not at all',
      mostName: 'it gives out',
    },
    {
      id: 'practical',
      kind: 'section',
      text: 'The practical side',
      help: 'Then you choose a time.',
      required: false,
    },
    {
      id: 'price',
      kind: 'one',
      text: '€95 for an assessment:',
      required: true,
      choices: [
        { id: 'fine', text: 'That is all right' },
        { id: 'parts', text: 'In two parts, please' },
        { id: 'too-much', text: 'That is more than I can pay' },
      ],
    },
    {
      id: 'summary',
      kind: 'yesno',
      text: 'Would you like a written summary afterwards, for €18?',
      required: false,
    },
    {
      id: 'sample',
      kind: 'file',
      text: 'A recording of your voice, if you have one',
      help: 'Half a minute of reading aloud is plenty.',
      required: false,
      accepts: ['sound'],
      mostBytes: 2 * 1024 * 1024,
    },
    { id: 'came', kind: 'short', text: 'How did you come to me?', required: false },
  ],
  rules: [
    {
      id: 'doctor-first',
      name: 'See a doctor first',
      when: {
        all: [
          { question: 'hoarse', is: '=', value: 'long' },
          { question: 'doctor', is: '=', value: false },
        ],
      },
      effect: { do: 'look', note: 'Hoarse for more than 3 weeks, and no doctor yet.' },
    },
    {
      id: 'two-parts',
      name: 'Pays in two parts',
      when: { question: 'price', is: '=', value: 'parts' },
      effect: { do: 'look', note: 'Wants to pay in two parts.' },
    },
    {
      id: 'price-too-high',
      name: 'The price is too high',
      when: { question: 'price', is: '=', value: 'too-much' },
      effect: {
        do: 'close',
        message:
          'An assessment would not be the right beginning then. The reading group costs much less and helps more people than one would think; the first conversation is free.',
        services: ['reading-aloud', 'first-conversation'],
        enquiry: true,
      },
    },
    {
      id: 'written-summary',
      name: 'Written summary',
      when: { question: 'summary', is: '=', value: true },
      effect: { do: 'item', name: 'Written summary', price: 1_800 },
    },
    {
      id: 'singers',
      name: 'Singers take longer',
      when: { question: 'uses', is: 'includes', value: 'singing' },
      effect: { do: 'minutes', minutes: 15 },
    },
  ],
}

const readingQuestions: Questionnaire = {
  id: 'reading-questions',
  name: 'Before the group',
  version: 1,
  bands: [],
  questions: [
    {
      id: 'to-whom',
      kind: 'one',
      text: 'To whom do you read?',
      required: true,
      choices: [
        { id: 'children', text: 'Children' },
        { id: 'grown', text: 'Grown-ups' },
        { id: 'nobody', text: 'Nobody yet' },
      ],
    },
    {
      id: 'ages',
      kind: 'short',
      text: 'How old are they?',
      required: false,
      when: { question: 'to-whom', is: '=', value: 'children' },
    },
    {
      id: 'ease',
      kind: 'scale',
      text: 'How much at ease are you when others listen?',
      required: true,
      least: 1,
      most: 7,
      leastName: 'I dread it',
      mostName: 'I love it',
    },
    { id: 'text', kind: 'short', text: 'A text you would like to read', required: false },
  ],
  rules: [
    {
      id: 'dread',
      name: 'Dreads being heard',
      when: { question: 'ease', is: '≤', value: 1 },
      effect: { do: 'look', note: 'May need a conversation before the group.' },
    },
  ],
}

/** What the demo practice asks before its three services. */
export const demoQuestionnaires: Questionnaire[] = [firstQuestions, voiceQuestions, readingQuestions]
