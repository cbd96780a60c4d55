import type { DoorService } from '@acolhida/core/contract'
import { Check } from 'lucide-react'
import { useEffect, useRef } from 'react'
import { Link, useParams, useSearchParams } from 'react-router'
import { stageOf } from '../visit/filling.ts'
import { useDoor } from '../visit/follow.ts'
import { fillingOf, useVisit } from '../visit/visit.ts'
import { Questions } from './questions.tsx'
import type { DoorStep } from './steps.ts'
import { Summary } from './summary.tsx'
import { TermsStep } from './terms.tsx'
import { Time } from './time.tsx'

const NAMES: Record<DoorStep, string> = { questions: 'Questions', time: 'Time', terms: 'Terms' }

/** From a service to a request: questions, a time, terms. */
export function Flow() {
  const { slug, services } = useDoor()
  const { service: id } = useParams()
  const service = services.find((service) => service.id === id)
  if (!service) {
    return (
      <div className="max-w-[640px]">
        <h1>This is not offered at the moment</h1>
        <p className="mt-3">
          <Link className="way" to={`/${slug}`}>
            See what is
          </Link>
        </p>
      </div>
    )
  }
  return <ServiceFlow key={service.id} service={service} />
}

function ServiceFlow({ service }: { service: DoorService }) {
  const visit = useVisit()
  const stage = stageOf(fillingOf(visit, service.id))
  const [search, setSearch] = useSearchParams()
  const asked = search.get('step') as DoorStep | null
  const open: DoorStep[] = ['questions']
  if (stage !== 'wish') open.push('time')
  if (stage === 'kept') open.push('terms')
  // What holds no longer leads back to the furthest step that does.
  const step = asked && open.includes(asked) ? asked : asked === 'terms' ? open.at(-1)! : 'questions'
  const top = useRef<HTMLDivElement>(null)
  const first = useRef(true)

  const go = (next: DoorStep): void => setSearch({ step: next })
  // Led back to the times, the address follows: the next start picked must not carry anybody on by itself.
  useEffect(() => {
    if (asked === 'terms' && step === 'time') setSearch({ step }, { replace: true })
  }, [asked, step, setSearch])
  // biome-ignore lint/correctness/useExhaustiveDependencies: moves the reader along when the step changes
  useEffect(() => {
    if (first.current) first.current = false
    else top.current?.focus()
    window.scrollTo({ top: 0 })
  }, [step])

  const steps = Object.keys(NAMES) as DoorStep[]
  return (
    <div className="lg:grid lg:grid-cols-[1fr_340px] lg:gap-9">
      <div>
        <nav aria-label="Steps">
          <ol className="mb-5 flex flex-wrap gap-1.5 sm:gap-2">
            <li className="tag tag-fits flex items-center gap-1 rounded-full px-2.5 py-1.5 sm:px-3.5">
              <Check size={14} aria-hidden="true" /> Service
            </li>
            {steps.map((at) => {
              const current = at === step
              const done = steps.indexOf(at) < steps.indexOf(step)
              const look = current ? 'bg-leaf text-primary-content' : done ? 'tag-fits' : 'bg-shade text-soft'
              return (
                <li
                  key={at}
                  className={`tag rounded-full ${look} p-0`}
                  aria-current={current ? 'step' : undefined}
                >
                  {done ? (
                    <button
                      type="button"
                      className="flex cursor-pointer items-center gap-1 px-2.5 py-1.5 sm:px-3.5"
                      onClick={() => go(at)}
                    >
                      <Check size={14} aria-hidden="true" /> {NAMES[at]}
                    </button>
                  ) : (
                    <span className="block px-2.5 py-1.5 sm:px-3.5">{NAMES[at]}</span>
                  )}
                </li>
              )
            })}
          </ol>
        </nav>
        <div ref={top} tabIndex={-1} className="outline-none">
          {step === 'questions' && <Questions service={service} go={go} />}
          {step === 'time' && <Time service={service} go={go} />}
          {step === 'terms' && <TermsStep service={service} />}
        </div>
      </div>
      <Summary service={service} step={step} go={go} />
    </div>
  )
}
