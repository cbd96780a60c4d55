import type { Questionnaire } from '../types.ts'

/** Amounts in these starts are in minor units of a currency with two decimals; whoever uses them sets their own. */

/** For coaches and advisers. */
export const coaching: Questionnaire = {
  id: 'coaching',
  name: 'Before we work together',
  version: 1,
  questions: [
    {
      id: 'about',
      kind: 'long',
      text: 'What would you like to be different?',
      help: 'Two or three sentences are enough.',
      required: true,
      leastWords: 5,
    },
    {
      id: 'since',
      kind: 'one',
      text: 'How long have you been thinking about this?',
      required: true,
      choices: [
        { id: 'weeks', text: 'Some weeks' },
        { id: 'months', text: 'Some months' },
        { id: 'years', text: 'A year or longer' },
      ],
    },
    {
      id: 'ready',
      kind: 'scale',
      text: 'How ready are you to try something new?',
      required: true,
      least: 1,
      most: 7,
      leastName: 'not yet',
      mostName: 'this week',
    },
    {
      id: 'help',
      kind: 'yesno',
      text: 'Are you in treatment with somebody for this at the moment?',
      required: true,
      private: true,
    },
  ],
  rules: [
    {
      id: 'not-yet',
      name: 'Not ready yet',
      when: { question: 'ready', is: '≤', value: 2 },
      effect: {
        do: 'close',
        message:
          'It sounds as if this needs a little more time. You are welcome to come back when you would like to begin.',
        services: [],
        enquiry: true,
      },
    },
    {
      id: 'in-treatment',
      name: 'In treatment',
      when: { question: 'help', is: '=', value: true },
      effect: { do: 'look', note: 'Somebody else is helping already; ask whether they know.' },
    },
  ],
  bands: [],
}

/** For teachers and tutors. */
export const tutoring: Questionnaire = {
  id: 'tutoring',
  name: 'Before the first lesson',
  version: 1,
  questions: [
    {
      id: 'learner',
      kind: 'one',
      text: 'Who is going to learn?',
      required: true,
      choices: [
        { id: 'me', text: 'I am' },
        { id: 'child', text: 'A child of mine' },
      ],
    },
    {
      id: 'age',
      kind: 'number',
      text: 'How old is the child?',
      required: true,
      whole: true,
      least: 4,
      most: 17,
      unit: 'years',
      when: { question: 'learner', is: '=', value: 'child' },
    },
    { id: 'subject', kind: 'short', text: 'Which subject?', required: true },
    {
      id: 'level',
      kind: 'one',
      text: 'Where do you stand?',
      required: true,
      choices: [
        { id: 'beginning', text: 'At the beginning' },
        { id: 'middle', text: 'Somewhere in the middle' },
        { id: 'exam', text: 'Before an examination' },
      ],
    },
    {
      id: 'exam',
      kind: 'date',
      text: 'When is the examination?',
      required: true,
      when: { question: 'level', is: '=', value: 'exam' },
    },
  ],
  rules: [
    {
      id: 'small',
      name: 'Under seven',
      when: { question: 'age', is: '<', value: 7 },
      effect: { do: 'look', note: 'Short lessons, and a parent beside.' },
    },
    {
      id: 'exam',
      name: 'An examination',
      when: { question: 'level', is: '=', value: 'exam' },
      effect: { do: 'minutes', minutes: 15 },
    },
  ],
  bands: [],
}

/** For movement teachers and bodyworkers. */
export const bodywork: Questionnaire = {
  id: 'bodywork',
  name: 'Before we move',
  version: 1,
  questions: [
    {
      id: 'wish',
      kind: 'long',
      text: 'What would you like to be able to do?',
      required: true,
      leastWords: 3,
    },
    {
      id: 'pain',
      kind: 'scale',
      text: 'How much does it hurt on an ordinary day?',
      required: true,
      private: true,
      least: 0,
      most: 10,
      leastName: 'not at all',
      mostName: 'as much as can be',
    },
    {
      id: 'signs',
      kind: 'several',
      text: 'Have you had any of these in the last month?',
      required: false,
      private: true,
      choices: [
        { id: 'numb', text: 'An arm or a leg that goes numb' },
        { id: 'fever', text: 'Fever together with the pain' },
        { id: 'fall', text: 'A fall or an accident' },
        { id: 'operation', text: 'An operation' },
      ],
    },
    {
      id: 'doctor',
      kind: 'yesno',
      text: 'Has a doctor looked at it?',
      required: true,
      private: true,
    },
  ],
  rules: [
    {
      id: 'signs',
      name: 'Something a doctor should see',
      when: {
        all: [
          { question: 'signs', is: 'answered' },
          { question: 'doctor', is: '=', value: false },
        ],
      },
      effect: { do: 'look', note: 'Ask them to see a doctor first.' },
    },
    {
      id: 'much-pain',
      name: 'Much pain',
      when: { question: 'pain', is: '≥', value: 7 },
      effect: { do: 'look', note: 'Call before the first hour.' },
    },
  ],
  bands: [],
}

/** For photographers and film makers. */
export const pictures: Questionnaire = {
  id: 'pictures',
  name: 'Before the pictures',
  version: 1,
  questions: [
    {
      id: 'occasion',
      kind: 'one',
      text: 'What are the pictures for?',
      required: true,
      choices: [
        { id: 'portrait', text: 'A portrait' },
        { id: 'family', text: 'A family' },
        { id: 'feast', text: 'A feast' },
      ],
    },
    {
      id: 'people',
      kind: 'number',
      text: 'How many people are in them?',
      required: true,
      whole: true,
      least: 1,
      most: 60,
      when: { not: { question: 'occasion', is: '=', value: 'portrait' } },
    },
    {
      id: 'prints',
      kind: 'items',
      text: 'Would you like prints?',
      required: false,
      items: [
        { id: 'small', text: 'A small print', most: 20 },
        { id: 'large', text: 'A large print', most: 10 },
      ],
    },
    { id: 'where', kind: 'address', text: 'Where shall we meet?', required: true, travel: true },
    {
      id: 'mood',
      kind: 'file',
      text: 'A picture whose mood you like',
      required: false,
      accepts: ['picture'],
      mostBytes: 3 * 1024 * 1024,
    },
  ],
  rules: [
    {
      id: 'feast',
      name: 'A feast takes longer',
      when: { question: 'occasion', is: '=', value: 'feast' },
      effect: { do: 'minutes', minutes: 120 },
    },
    {
      id: 'everybody',
      name: 'Three minutes for each person',
      when: { question: 'people', is: 'answered' },
      effect: { do: 'minutes', minutes: 3, times: 'people' },
    },
    {
      id: 'small-prints',
      name: 'Small prints',
      when: { question: 'prints', is: 'includes', value: 'small' },
      effect: { do: 'item', name: 'Small print', price: 900, times: 'prints', of: 'small' },
    },
    {
      id: 'large-prints',
      name: 'Large prints',
      when: { question: 'prints', is: 'includes', value: 'large' },
      effect: { do: 'item', name: 'Large print', price: 3_500, times: 'prints', of: 'large' },
    },
  ],
  bands: [],
}
