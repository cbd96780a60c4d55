import type { DeskDoes } from '@acolhida/core/booking'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { awayRelay } from './relay.ts'
import { Request } from './request.tsx'

/** How far ahead other times are looked for, in days. */
const DAYS = 21

/** One request by its word link. The secret is in the fragment, which no server sees; looking decides nothing. */
export function WordPage() {
  const [secret] = useState(() => location.hash.slice(1))
  const queries = useQueryClient()
  const word = useQuery({
    queryKey: ['word', secret],
    queryFn: () => awayRelay.word(secret),
    enabled: secret !== '',
    refetchInterval: 15_000,
  })
  const deciding = useMutation({
    mutationFn: (command: DeskDoes) => awayRelay.decide(secret, command, word.data!.shown),
    onSuccess: (view) => queries.setQueryData(['word', secret], view),
    onError: () => queries.invalidateQueries({ queryKey: ['word', secret] }),
  })
  const title = word.data ? `${word.data.name} asks for a time` : 'A request'
  return (
    <>
      <title>{`${title} · Acolhida`}</title>
      <h1 className="mb-3">{title}</h1>
      {(secret === '' || (word.error && !word.data)) && (
        <p role="alert">
          {word.error?.message ?? 'This link is not whole. Please open it from the mail once more.'}
        </p>
      )}
      {!word.data && !word.error && secret !== '' && <p className="text-soft">One moment …</p>}
      {word.data && (
        <Request
          view={word.data}
          busy={deciding.isPending}
          problem={deciding.error?.message}
          decide={(command) => deciding.mutate(command)}
          times={async () => (await awayRelay.times(secret, { days: DAYS })).starts}
        />
      )}
    </>
  )
}
