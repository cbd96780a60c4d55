import { type ComponentType, lazy } from 'react'
import { Route, Routes } from 'react-router'
import { DeskFrame } from './pages/frame.tsx'
import { Today } from './pages/today.tsx'

/** The pages but for the first: each comes when one goes there, or as soon as the browser has nothing else to do. */
const wanted: (() => Promise<unknown>)[] = []
const page = <K extends string>(load: () => Promise<Record<K, ComponentType>>, name: K) => {
  wanted.push(load)
  return lazy(async () => ({ default: (await load())[name] }))
}

const CalendarsPage = page(() => import('./calendars/calendars.tsx'), 'CalendarsPage')
const DiaryPage = page(() => import('./diary/diary.tsx'), 'DiaryPage')
const FirstSteps = page(() => import('./first/first-steps.tsx'), 'FirstSteps')
const HandOut = page(() => import('./hand-out/hand-out.tsx'), 'HandOut')
const HoursPage = page(() => import('./hours/hours.tsx'), 'HoursPage')
const HouseRulesPage = page(() => import('./pages/house-rules.tsx'), 'HouseRulesPage')
const LimitsPage = page(() => import('./pages/limits.tsx'), 'LimitsPage')
const Places = page(() => import('./pages/places.tsx'), 'Places')
const PracticePage = page(() => import('./pages/practice.tsx'), 'PracticePage')
const ProfilePage = page(() => import('./pages/profile.tsx'), 'ProfilePage')
const SentPage = page(() => import('./messages/sent-page.tsx'), 'SentPage')
const Outbox = page(() => import('./messages/outbox.tsx'), 'Outbox')
const WaitingPage = page(() => import('./waiting/waiting-page.tsx'), 'WaitingPage')
const WordsPage = page(() => import('./messages/words-page.tsx'), 'WordsPage')
const SessionSheet = page(() => import('./request/session-sheet.tsx'), 'SessionSheet')
const TermsPage = page(() => import('./terms/terms-page.tsx'), 'TermsPage')
const ThisDesk = page(() => import('./pages/this-desk.tsx'), 'ThisDesk')
const TryIt = page(() => import('./pages/try-it.tsx'), 'TryIt')
const MoneyPage = page(() => import('./money/money-page.tsx'), 'MoneyPage')
const PersonPage = page(() => import('./people/person.tsx'), 'PersonPage')
const MoveInPage = page(() => import('./move-in/move-in-page.tsx'), 'MoveInPage')
const BringInPage = page(() => import('./move-in/bring-in-page.tsx'), 'BringInPage')
const PreparationsPage = page(() => import('./preparing/preparations-page.tsx'), 'PreparationsPage')
const WhoPage = page(() => import('./preparing/who-page.tsx'), 'WhoPage')
const PathsPage = page(() => import('./preparing/paths-page.tsx'), 'PathsPage')
const PlanPage = page(() => import('./planning/plan-page.tsx'), 'PlanPage')
const People = page(() => import('./people/people.tsx'), 'People')
const Builder = page(() => import('./questions/builder.tsx'), 'Builder')
const QuestionsPage = page(() => import('./questions/list.tsx'), 'QuestionsPage')
const Arrivals = page(() => import('./request/arrivals.tsx'), 'Arrivals')
const WholeRecord = page(() => import('./record/record-page.tsx'), 'WholeRecord')
const RequestPage = page(() => import('./request/request.tsx'), 'RequestPage')
const Codes = page(() => import('./service/codes.tsx'), 'Codes')
const ServicePage = page(() => import('./service/service.tsx'), 'ServicePage')
const ServicesPage = page(() => import('./service/services.tsx'), 'ServicesPage')

/** Fetches the pages one is not on yet, one by one, so that going there is quick. */
export function fetchPages(): void {
  const [next, ...others] = wanted.splice(0)
  if (!next) return
  wanted.push(...others)
  const soon = globalThis.requestIdleCallback ?? ((work: () => void) => setTimeout(work, 200))
  soon(() => {
    // A page that can't be fetched now is fetched when one goes there.
    next()
      .catch(() => undefined)
      .finally(fetchPages)
  })
}

/** Every page of the desk, by its address. */
export const DeskApp = () => (
  <Routes>
    <Route element={<DeskFrame />}>
      <Route index element={<Today />} />
      <Route path="arrivals" element={<Arrivals />} />
      <Route path="arrivals/:id" element={<RequestPage />} />
      <Route path="arrivals/:id/sheet" element={<SessionSheet />} />
      <Route path="record" element={<WholeRecord />} />
      <Route path="diary" element={<DiaryPage />} />
      <Route path="waiting" element={<WaitingPage />} />
      <Route path="money" element={<MoneyPage />} />
      <Route path="people" element={<People />} />
      <Route path="people/move-in" element={<MoveInPage />} />
      <Route path="people/move-in/sessions" element={<BringInPage />} />
      <Route path="people/preparing" element={<WhoPage />} />
      <Route path="people/:id" element={<PersonPage />} />
      <Route path="people/:id/plan" element={<PlanPage />} />
      <Route path="first/:step?" element={<FirstSteps />} />
      <Route path="practice" element={<PracticePage />} />
      <Route path="profile" element={<ProfilePage />} />
      <Route path="hours" element={<HoursPage />} />
      <Route path="calendars" element={<CalendarsPage />} />
      <Route path="places" element={<Places />} />
      <Route path="rules" element={<HouseRulesPage />} />
      <Route path="limits" element={<LimitsPage />} />
      <Route path="services" element={<ServicesPage />} />
      <Route path="services/codes" element={<Codes />} />
      <Route path="services/:id" element={<ServicePage />} />
      <Route path="questions" element={<QuestionsPage />} />
      <Route path="questions/:id" element={<Builder />} />
      <Route path="terms" element={<TermsPage />} />
      <Route path="preparations" element={<PreparationsPage />} />
      <Route path="paths" element={<PathsPage />} />
      <Route path="sent" element={<SentPage />} />
      <Route path="outbox" element={<Outbox />} />
      <Route path="words" element={<WordsPage />} />
      <Route path="hand-out" element={<HandOut />} />
      <Route path="try" element={<TryIt />} />
      <Route path="desk" element={<ThisDesk />} />
      <Route path="*" element={<Today />} />
    </Route>
  </Routes>
)
