import { namePlaces } from '../time/words.ts'
import { addBook } from './books.ts'
import door from './en/door.json' with { type: 'json' }
import fields from './en/fields.json' with { type: 'json' }
import letters from './en/letters.json' with { type: 'json' }
import terms from './en/terms.json' with { type: 'json' }
import answersPt from './pt/answers.json' with { type: 'json' }
import doorPt from './pt/door.json' with { type: 'json' }
import fieldsPt from './pt/fields.json' with { type: 'json' }
import lettersPt from './pt/letters.json' with { type: 'json' }
import placesPt from './pt/places.json' with { type: 'json' }
import refusalsPt from './pt/refusals.json' with { type: 'json' }
import termsPt from './pt/terms.json' with { type: 'json' }

addBook('en', 'door', door)
addBook('en', 'fields', fields)
addBook('en', 'letters', letters)
addBook('en', 'terms', terms)
addBook('pt', 'answers', answersPt)
addBook('pt', 'door', doorPt)
addBook('pt', 'fields', fieldsPt)
addBook('pt', 'letters', lettersPt)
addBook('pt', 'refusals', refusalsPt)
addBook('pt', 'terms', termsPt)
namePlaces('pt', placesPt)

/** Every catalogue in every language is on the shelf: for whoever speaks to many, and for tests. */
export const ALL_BOOKS = true
