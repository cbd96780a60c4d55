import { ExternalLink } from 'lucide-react'
import { Link } from 'react-router'
import { useDesk } from '../data/live.ts'
import { useRelayStatus } from '../sync/use-status.ts'

/** Where the door is reached, with a slash at the end; unknown while the relay does not answer. */
export const useDoorUrl = (): string | undefined => useRelayStatus()?.doorUrl

/** The way to one's own door, as clients see it. */
export function DoorLink() {
  const { practice } = useDesk()
  const door = useDoorUrl()
  return door ? (
    <>
      <Link className="press" to="/hand-out">
        Hand out the link
      </Link>
      <a className="press" href={`${door}${practice.profile.slug}`} target="_blank" rel="noreferrer">
        See my door <ExternalLink size={15} aria-hidden="true" />
      </a>
    </>
  ) : null
}
