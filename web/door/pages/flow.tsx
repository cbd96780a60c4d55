import type { DoorService } from '@acolhida/core/contract'
import { useMutation } from '@tanstack/react-query'
import { Check } from 'lucide-react'
import { lazy, Suspense, useEffect, useRef } from 'react'
import { useNavigationType, useParams, useSearchParams } from 'react-router'
import { newKey, RelayError } from '../../relay-client/client.ts'
import { Notice } from '../parts/notice.tsx'
import { Nowhere } from '../parts/nowhere.tsx'
import { say } from '../parts/say.ts'
import { stageOf } from '../visit/filling.ts'
import { useDoor } from '../visit/follow.ts'
import { doorRelay } from '../visit/relay.ts'
import { fillIn, fillingOf, isQuoted, useVisit, wantedOf } from '../visit/visit.ts'
import { NotAMatch } from './not-a-match.tsx'
import { Questions } from './questions.tsx'
import type { DoorStep } from './steps.ts'
import { Summary } from './summary.tsx'
import { TermsStep } from './terms.tsx'
import { Time } from './time.tsx'

const Wait = lazy(() => import('./wait.tsx'))

/** From a service to a request: questions, a time, terms. */
export function Flow() {
  const { slug, services } = useDoor()
  const { service: id } = useParams()
  const service = services.find((service) => service.id === id)
  if (!service) {
    return <Nowhere slug={slug} title={say('off')} />
  }
  return <ServiceFlow key={service.id} service={service} />
}

/** Where there is nothing to answer, what it comes to is read at once. */
function useReadAtOnce(service: DoorService, on: boolean) {
  const { slug } = useDoor()
  const visit = useVisit()
  const reading = useMutation({
    mutationFn: () => doorRelay.read(slug, wantedOf(visit, service)),
    onSuccess: (read) => fillIn(service.id, { is: 'read', read }),
    onError: (error) => {
      if (error instanceof RelayError && !error.unreachable)
        fillIn(service.id, { is: 'refused', problem: error.problem, key: newKey() })
    },
  })
  const { mutate, isIdle } = reading
  useEffect(() => {
    if (on && isIdle) mutate()
  }, [on, isIdle, mutate])
  return reading
}

function ServiceFlow({ service }: { service: DoorService }) {
  const { practice } = useDoor()
  const visit = useVisit()
  const filling = fillingOf(visit, service.id)
  const stage = stageOf(filling)
  const [search, setSearch] = useSearchParams()
  const asked = search.get('step') as DoorStep | null
  const asks =
    (service.questionnaire?.questions.length ?? 0) > 0 ||
    service.extras.length > 0 ||
    isQuoted(visit, service.id)
  const first: DoorStep = asks ? 'questions' : 'time'
  const steps: DoorStep[] = asks ? ['questions', 'time', 'terms'] : ['time', 'terms']
  const open: DoorStep[] = [first]
  if (asks && stage !== 'wish') open.push('time')
  if (stage === 'kept') open.push('terms')
  const furthest = open.at(-1) ?? first
  if (service.line && (asks ? stage !== 'wish' : filling.read?.open)) open.push('line')
  // What holds no longer leads back to the furthest step that does.
  const step = asked && open.includes(asked) ? asked : asked === 'terms' ? furthest : first
  const reading = useReadAtOnce(service, !asks && stage === 'wish' && !filling.read)
  const top = useRef<HTMLDivElement>(null)
  const isFirst = useRef(true)
  const came = useNavigationType()

  const go = (next: DoorStep, day?: string): void => setSearch({ step: next, ...(day ? { day } : {}) })
  // Led back to the times, the address follows: the next start picked must not carry anybody on by itself. Where
  // nothing is filled in any more it has been sent, and the way leads on to where things stand.
  useEffect(() => {
    if (asked === 'terms' && step === 'time' && stage !== 'wish') setSearch({ step }, { replace: true })
  }, [asked, step, stage, setSearch])
  // biome-ignore lint/correctness/useExhaustiveDependencies: moves the reader along when the step changes
  useEffect(() => {
    const first = isFirst.current
    isFirst.current = false
    // Whoever opens this address begins at its top; whoever has come on from what was chosen goes on at once.
    if (first && came !== 'PUSH') return
    const question = first && step === 'questions' ? '[id^="question-"] :is(input, textarea, select)' : 'h1'
    top.current?.querySelector<HTMLElement>(question)?.focus({ preventScroll: true })
    window.scrollTo({ top: 0 })
  }, [step])

  return (
    <div className="lg:grid lg:grid-cols-[1fr_340px] lg:gap-9">
      <title>{`${service.name}: ${say(`step.${step}`)} · ${practice.name}`}</title>
      <div>
        <nav aria-label={say('steps')}>
          <ol className="mb-5 flex flex-wrap gap-1.5 sm:gap-2">
            <li className="tag tag-fits flex items-center gap-1 rounded-full px-2.5 py-1.5 sm:px-3.5">
              <Check size={14} aria-hidden="true" /> {say('step.service')}
            </li>
            {(step === 'line' ? [...steps.filter((at) => at !== 'terms'), step] : steps).map((at) => {
              const current = at === step
              const done = at !== step && (step === 'line' || steps.indexOf(at) < steps.indexOf(step))
              const look = current ? 'bg-leaf text-primary-content' : done ? 'tag-fits' : 'bg-shade text-soft'
              const name = say(`step.${at}`)
              return (
                <li
                  key={at}
                  className={`tag rounded-full border border-transparent ${look} p-0`}
                  aria-current={current ? 'step' : undefined}
                >
                  {done ? (
                    <button
                      type="button"
                      className="flex cursor-pointer items-center gap-1 px-2.5 py-1.5 sm:px-3.5"
                      onClick={() => go(at)}
                    >
                      <Check size={14} aria-hidden="true" /> {name}
                    </button>
                  ) : (
                    <span className="block px-2.5 py-1.5 sm:px-3.5">{name}</span>
                  )}
                </li>
              )
            })}
          </ol>
        </nav>
        <div ref={top}>
          {step === 'questions' && <Questions service={service} go={go} />}
          {step === 'time' &&
            (asks || filling.read?.open ? (
              <Time service={service} go={go} />
            ) : filling.read ? (
              <NotAMatch
                service={service}
                closed={filling.read.closed}
                back={() => fillIn(service.id, { is: 'reconsidered' })}
              />
            ) : reading.error ? (
              <Notice>
                {reading.error.message}{' '}
                <button type="button" className="way" onClick={() => reading.mutate()}>
                  {say('try-again')}
                </button>
              </Notice>
            ) : (
              <p className="text-soft">{say('moment')}</p>
            ))}
          {step === 'line' && (
            <Suspense fallback={<p className="text-soft">{say('moment')}</p>}>
              <Wait service={service} go={go} />
            </Suspense>
          )}
          {step === 'terms' && <TermsStep service={service} />}
        </div>
      </div>
      <Summary service={service} step={step} go={go} />
    </div>
  )
}
