import { signOf } from '@acolhida/core/money'
import { longWeekdayName } from '@acolhida/core/time'
import { Plus, X } from 'lucide-react'
import { useState } from 'react'
import { Link, Navigate, useNavigate, useParams } from 'react-router'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { PlainChoice, PlainField } from '../parts/plain-field.tsx'
import { withDoor } from '../parts/with-door.ts'
import { currencyOf } from '../parts/words.ts'
import { beginOwn } from '../sync/acts.ts'
import { useRelayStatus } from '../sync/use-status.ts'
import { FirstPage } from './first-page.tsx'
import { FounderFields, nobodyYet } from './founder.tsx'
import { newPractice } from './new-practice.ts'
import {
  FIRST_STEPS,
  type FirstService,
  firstQuestions,
  firstService,
  firstTerms,
  weekOf,
  withFirstQuestions,
  withFirstService,
  withFirstTerms,
  withWeek,
} from './steps.ts'

const WHERE = [
  { value: 'video', name: 'By video' },
  { value: 'phone', name: 'By phone, I call' },
  { value: 'studio', name: 'At my studio' },
]

/** The first path of a practice, a step an address. */
export function FirstSteps() {
  const { step } = useParams()
  switch (step) {
    case 'practice':
      return <PracticeStep />
    case 'hours':
      return <HoursStep />
    case 'service':
      return <ServiceStep />
    case 'questions':
      return <QuestionsStep />
    case 'terms':
      return <TermsStep />
    case 'open':
      return <OpenStep />
    default:
      return <Navigate to="/first/practice" replace />
  }
}

/** The way on from a step, and back. */
function useWay(step: (typeof FIRST_STEPS)[number]['id']) {
  const navigate = useNavigate()
  const at = FIRST_STEPS.findIndex(({ id }) => id === step)
  const before = FIRST_STEPS[at - 1]
  return {
    onDone: (): void => void navigate(`/first/${FIRST_STEPS[at + 1]?.id ?? 'open'}`),
    aside: before && <Back to={before.id} />,
  }
}

const Back = ({ to }: { to: string }) => (
  <Link className="press press-quiet" to={`/first/${to}`}>
    Back
  </Link>
)

/** Whose practice it is; in the demo, the beginning of one's own. */
function PracticeStep() {
  const { practice } = useDesk()
  const status = useRelayStatus()
  const lent = status?.demo === practice.id
  const own = { ...practice.profile }
  const [typed, setTyped] = useState<ReturnType<typeof nobodyYet>>()
  const about = typed ?? (lent ? nobodyYet() : own)
  const way = useWay('practice')
  if (status === undefined) return null
  if (lent) {
    return (
      <FirstPage
        step="practice"
        heading="Begin my own practice"
        line="It takes the place of the demo: its people and bookings go from this desk and from the relay."
        onGo={() => beginOwn(newPractice(about), { takesDemo: true })}
        {...way}
        aside={
          <Link className="press press-quiet" to="/">
            Back to the demo
          </Link>
        }
      >
        <FounderFields about={about} onChange={setTyped} />
      </FirstPage>
    )
  }
  const { name, email, zone, currency } = about
  return (
    <FirstPage
      step="practice"
      heading="Your practice"
      line="Your clients see your name; your zone is the one your hours are in."
      onGo={() =>
        changePractice(db, 'who I am', (p) => ({
          ...p,
          profile: { ...p.profile, name: name.trim(), email: email.trim(), zone, currency },
        }))
      }
      {...way}
    >
      <FounderFields about={about} onChange={setTyped} />
    </FirstPage>
  )
}

function HoursStep() {
  const { practice } = useDesk()
  const [week, setWeek] = useState(() => weekOf(practice))
  return (
    <FirstPage
      step="hours"
      heading="When do you work?"
      line="The hours of a usual week. Single days, seasons and time away come later, on the page “Hours”."
      onGo={() => changePractice(db, 'hours', (p) => withWeek(p, week))}
      {...useWay('hours')}
    >
      <fieldset>
        <legend className="ask">On</legend>
        <div className="mt-2 flex flex-wrap gap-x-5 gap-y-2">
          {week.days.map((works, i) => (
            <label
              key={longWeekdayName(i + 1)}
              className="flex min-h-[32px] cursor-pointer items-center gap-2"
            >
              <input
                type="checkbox"
                className="checkbox checkbox-primary checkbox-sm"
                checked={works}
                onChange={(event) =>
                  setWeek({
                    ...week,
                    days: week.days.map((other, at) => (at === i ? event.target.checked : other)),
                  })
                }
              />
              {longWeekdayName(i + 1)}
            </label>
          ))}
        </div>
      </fieldset>
      <PlainField
        label="Hours, as 9–13, 14–18"
        value={week.hours}
        onChange={(hours) => setWeek({ ...week, hours })}
      />
    </FirstPage>
  )
}

function ServiceStep() {
  const { practice } = useDesk()
  const currency = currencyOf(practice.profile.currency)
  const [typed, setTyped] = useState(() => firstService(practice, currency.decimals))
  const set = (key: keyof FirstService) => (value: string) => setTyped({ ...typed, [key]: value })
  return (
    <FirstPage
      step="service"
      heading="What can one come to you for?"
      line="One service to begin with. Nothing is booked before you say yes; that, and everything else about it, can be changed later."
      onGo={() =>
        changePractice(db, 'the first service', (p) => withFirstService(p, typed, currency.decimals))
      }
      {...useWay('service')}
    >
      <PlainField label="Its name" required value={typed.name} onChange={set('name')} />
      <div className="grid gap-4 sm:grid-cols-2">
        <PlainField label="Minutes" required value={typed.minutes} onChange={set('minutes')} />
        <PlainField
          label={`Price in ${signOf(currency.code)}; empty: free of charge`}
          value={typed.price}
          onChange={set('price')}
        />
        <PlainChoice label="Where" value={typed.where} options={WHERE} onChange={set('where')} />
        {typed.where === 'studio' && (
          <PlainField label="Its address" required value={typed.address} onChange={set('address')} />
        )}
      </div>
    </FirstPage>
  )
}

function QuestionsStep() {
  const { practice } = useDesk()
  const [texts, setTexts] = useState(() => firstQuestions(practice))
  const [added, setAdded] = useState(false)
  return (
    <FirstPage
      step="questions"
      heading="What do you ask first?"
      line="What somebody answers before they see your times. Choices, rules and private questions come later, on the page “Questions”."
      onGo={() => changePractice(db, 'the first questions', (p) => withFirstQuestions(p, texts))}
      {...useWay('questions')}
    >
      {texts.map((text, i) => {
        const n = i + 1
        return (
          // The questions stand in their order, and have no other name while they are typed.
          <div key={n} className="flex items-end gap-2">
            <div className="grow">
              <PlainField
                label={`Question ${n}`}
                value={text}
                focused={added && n === texts.length}
                onChange={(typed) => setTexts(texts.map((other, at) => (at === i ? typed : other)))}
              />
            </div>
            <button
              type="button"
              className="press press-quiet"
              aria-label={`Leave question ${n} out`}
              onClick={() => setTexts(texts.map((other, at) => (at === i ? '' : other)))}
            >
              <X size={16} aria-hidden="true" />
            </button>
          </div>
        )
      })}
      <button
        type="button"
        className="press justify-self-start"
        onClick={() => {
          setTexts([...texts, ''])
          setAdded(true)
        }}
      >
        <Plus size={16} aria-hidden="true" /> Ask something else
      </button>
      <p className="text-[13px] text-soft">A question without words isn’t asked.</p>
    </FirstPage>
  )
}

function TermsStep() {
  const { practice } = useDesk()
  const [typed, setTyped] = useState(() => firstTerms(practice))
  return (
    <FirstPage
      step="terms"
      heading="What do you agree on?"
      line="Nobody gets a booking without agreeing to this. Each wording is kept, with who agreed to it."
      onGo={() => changePractice(db, 'the first terms', (p) => withFirstTerms(p, typed))}
      {...useWay('terms')}
    >
      <PlainField
        label="Your terms"
        rows={6}
        value={typed.text}
        onChange={(text) => setTyped({ ...typed, text })}
      />
      <div className="grid gap-4 sm:grid-cols-2">
        <PlainField
          label="Cancelling is free until … hours before"
          value={typed.free}
          onChange={(free) => setTyped({ ...typed, free })}
        />
        <PlainField
          label="After that it costs … % of the price"
          value={typed.late}
          onChange={(late) => setTyped({ ...typed, late })}
        />
      </div>
    </FirstPage>
  )
}

function OpenStep() {
  const { practice } = useDesk()
  const navigate = useNavigate()
  const [headline, setHeadline] = useState(practice.profile.headline)
  const [greeting, setGreeting] = useState(practice.profile.greeting)
  return (
    <FirstPage
      step="open"
      heading="Open your door"
      line="Whoever has its address can ask for a time from then on. You can close it again at any moment."
      go="Open my door"
      onGo={() =>
        changePractice(db, 'opening the door', (p) => ({
          ...withDoor(p, { open: true }),
          profile: { ...p.profile, headline: headline.trim(), greeting: greeting.trim() },
        }))
      }
      onDone={() => void navigate('/hand-out')}
      aside={
        <>
          <Back to="terms" />
          <Link className="press press-quiet" to="/try">
            Try it first
          </Link>
        </>
      }
    >
      <PlainField label="What you do, in a line" value={headline} onChange={setHeadline} />
      <PlainField label="Your greeting at the door" rows={2} value={greeting} onChange={setGreeting} />
    </FirstPage>
  )
}
