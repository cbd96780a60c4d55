import { Link } from 'react-router'

/** Something that was looked for by its address, and is not at this desk. */
export const NotHere = ({ what }: { what: string }) => (
  <>
    <h1>This {what} is not here</h1>
    <p className="mt-3">
      <Link className="way" to="/arrivals">
        See all arrivals
      </Link>
    </p>
  </>
)
