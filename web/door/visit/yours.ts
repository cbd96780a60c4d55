import type { CourseView, StationDoes, StationView, YoursView } from '@acolhida/core/contract'
import { useMutation } from '@tanstack/react-query'
import { useRef } from 'react'
import { newKey } from '../../relay-client/client.ts'
import { doorRelay } from './relay.ts'

/** How the page of what is theirs works with the relay. */
export interface OnYours {
  view: YoursView
  secret: string
  /** With it answers that are not sent yet are sealed; nothing where the link has none. */
  half: string | undefined
  show: (view: YoursView) => void
  again: () => void
}

/** One thing of what there is to do. */
export interface OneThing {
  doing: OnYours
  course: CourseView
  station: StationView
  onDone: (view: YoursView) => void
}

/** Does one thing, and shows where things stand then; trying again after a lost answer is the same. */
export function useDoes({ doing, course, station, onDone }: OneThing) {
  const { secret, show, again } = doing
  const call = useRef({ said: '', key: '' })
  return useMutation({
    mutationFn: (does: StationDoes) => {
      const said = JSON.stringify(does)
      if (call.current.said !== said) call.current = { said, key: newKey() }
      return doorRelay.doStation(
        secret,
        { course: course.course, station: station.id, does },
        call.current.key,
      )
    },
    onSuccess: (view) => {
      call.current = { said: '', key: '' }
      show(view)
      onDone(view)
    },
    onError: again,
  })
}
