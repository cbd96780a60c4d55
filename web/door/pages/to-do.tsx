import type { StationView } from '@acolhida/core/contract'
import { type Attached, LARGEST_FILE, sizeInWords } from '@acolhida/core/questions'
import { useMutation } from '@tanstack/react-query'
import { lazy, Suspense, useState } from 'react'
import { BlocksText } from '../../terms/shown-terms.tsx'
import { useAgreeing } from '../parts/agreeing.tsx'
import { Notice } from '../parts/notice.tsx'
import { say } from '../parts/say.ts'
import { doorRelay } from '../visit/relay.ts'
import { type OneThing, useDoes } from '../visit/yours.ts'

const ToAnswer = lazy(() => import('./to-answer.tsx'))

/** One thing to do, as it is done. */
export function ToDo(one: OneThing) {
  switch (one.station.is) {
    case 'read':
      return <ToRead {...one} />
    case 'tick':
      return <ToTick {...one} />
    case 'sign':
      return one.station.terms ? <ToSign {...one} terms={one.station.terms} /> : <Signed {...one} />
    case 'bring':
      return <ToBring {...one} />
    case 'answer':
      return one.station.questions ? (
        <Suspense fallback={<p className="text-soft">{say('moment')}</p>}>
          <ToAnswer {...one} questions={one.station.questions} />
        </Suspense>
      ) : (
        <p>{say('yours.answers-sent', { name: one.doing.view.practitioner })}</p>
      )
  }
}

const Wrong = ({ error }: { error: Error | null }) =>
  error && (
    <div className="mt-3">
      <Notice>{error.message}</Notice>
    </div>
  )

function ToRead(one: OneThing) {
  const does = useDoes(one)
  const { letter = [], document: file, state, id } = one.station
  return (
    <>
      <div dir="auto" className="wrap-anywhere">
        <BlocksText blocks={letter} />
      </div>
      {file && (
        <a
          className="press mt-3"
          href={`/api/yours/${one.doing.secret}/documents/${one.course.course}/${id}`}
          download={`${file.name}.pdf`}
        >
          {say('yours.document', { name: file.name, size: sizeInWords(file.size) })}
        </a>
      )}
      <Wrong error={does.error} />
      {state !== 'done' && (
        <button
          type="button"
          className="press press-go mt-4"
          disabled={does.isPending}
          onClick={() => does.mutate({ do: 'done' })}
        >
          {say('yours.read')}
        </button>
      )}
    </>
  )
}

function ToTick(one: OneThing) {
  const does = useDoes(one)
  const { text, address, state } = one.station
  const done = state === 'done'
  return (
    <>
      {text && (
        <p dir="auto" className="whitespace-pre-line wrap-anywhere">
          {text}
        </p>
      )}
      {address && (
        <a className="press mt-3" href={address} target="_blank" rel="noopener noreferrer">
          {say('my.before-open')}
        </a>
      )}
      <Wrong error={does.error} />
      <label className="mt-3 flex min-h-11 items-center gap-3">
        <input
          type="checkbox"
          className="size-6 shrink-0 accent-(--leaf)"
          checked={done}
          disabled={does.isPending}
          onChange={() => does.mutate({ do: done ? 'undone' : 'done' })}
        />
        {say('yours.tick')}
      </label>
    </>
  )
}

function ToSign({ terms, ...one }: OneThing & { terms: NonNullable<StationView['terms']> }) {
  const does = useDoes(one)
  const agreeing = useAgreeing([terms])
  const [name, setName] = useState(one.doing.view.name)
  const id = `sign-${one.course.course}-${one.station.id}`
  const sign = (): void => {
    const agreed = agreeing.agreed()
    if (!agreed) return
    if (name.trim()) does.mutate({ do: 'sign', name: name.trim(), agreed })
    else {
      agreeing.say(say('terms.no-name'))
      document.getElementById(id)?.focus()
    }
  }
  return (
    <div className="grid gap-3">
      {agreeing.texts}
      <label className="ask" htmlFor={id}>
        {say('terms.name')}
        <input
          id={id}
          className="field mt-1"
          autoComplete="name"
          maxLength={120}
          value={name}
          onChange={(event) => {
            setName(event.target.value)
            agreeing.say(undefined)
          }}
        />
      </label>
      {agreeing.wrong}
      <Wrong error={does.error} />
      <button
        type="button"
        className="press press-go justify-self-start"
        disabled={does.isPending}
        onClick={sign}
      >
        {say('yours.sign')}
      </button>
    </div>
  )
}

function Signed({ station }: OneThing) {
  const { agreement } = station
  if (!agreement) return <p>{say('yours.done')}</p>
  return (
    <p className="wrap-anywhere">
      {say('my.agreed-proof', { name: agreement.name, print: agreement.print })}
    </p>
  )
}

function ToBring(one: OneThing) {
  const does = useDoes(one)
  const { text, files = [], state } = one.station
  const id = `bring-${one.course.course}-${one.station.id}`
  const [taken, setTaken] = useState<Attached[]>([])
  const [large, setLarge] = useState<string>()
  const takes = useMutation({
    mutationFn: (file: File) =>
      doorRelay.courseFile(
        one.doing.secret,
        { course: one.course.course, station: one.station.id, name: file.name },
        file,
      ),
    onSuccess: (file) => setTaken((before) => [...before, file]),
  })
  const take = async (chosen: FileList | null): Promise<void> => {
    setLarge(undefined)
    for (const file of chosen ?? []) {
      if (file.size > LARGEST_FILE)
        setLarge(say('yours.too-large', { name: file.name, most: sizeInWords(LARGEST_FILE) }))
      else await takes.mutateAsync(file).catch(() => undefined)
    }
  }
  return (
    <>
      {text && (
        <p dir="auto" className="whitespace-pre-line wrap-anywhere">
          {text}
        </p>
      )}
      {state === 'done' && files.length > 0 && (
        <ul className="mt-2 text-[14px]">
          {files.map(({ name, size }) => (
            <li key={name} className="wrap-anywhere">
              {name} ({sizeInWords(size)})
            </li>
          ))}
        </ul>
      )}
      <label className="ask mt-3" htmlFor={id}>
        {say(state === 'done' ? 'yours.bring-again' : 'yours.bring')}
        <input
          id={id}
          type="file"
          multiple
          className="field mt-1"
          disabled={takes.isPending}
          onChange={(event) => {
            void take(event.target.files)
            event.target.value = ''
          }}
        />
      </label>
      <ul className="mt-2 grid gap-1 text-[14px]" aria-live="polite">
        {taken.map(({ file, name, size }) => (
          <li key={file} className="flex items-center gap-3 wrap-anywhere">
            {name} ({sizeInWords(size)})
            <button
              type="button"
              className="way min-h-11"
              onClick={() => setTaken((before) => before.filter((other) => other.file !== file))}
            >
              {say('yours.leave-out', { name })}
            </button>
          </li>
        ))}
      </ul>
      {large && (
        <p role="alert" className="mt-2 font-semibold text-clay">
          {large}
        </p>
      )}
      <Wrong error={takes.error ?? does.error} />
      {taken.length > 0 && (
        <button
          type="button"
          className="press press-go mt-3"
          disabled={does.isPending || takes.isPending}
          onClick={() => does.mutate({ do: 'bring', files: taken })}
        >
          {say('yours.send', { count: taken.length })}
        </button>
      )}
    </>
  )
}
