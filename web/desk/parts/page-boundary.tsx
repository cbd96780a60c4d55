import type { ReactNode } from 'react'
import { ErrorBoundary, type FallbackProps } from 'react-error-boundary'
import { Link } from 'react-router'
import { problemWords } from './problem-words.ts'

/**
 * A page that fails says so, and leaves the others alone.
 * @param at which page it is: another one begins anew
 */
export const PageBoundary = ({ at, children }: { at: string; children: ReactNode }) => (
  <ErrorBoundary FallbackComponent={Failed} resetKeys={[at]}>
    {children}
  </ErrorBoundary>
)

const Failed = ({ error, resetErrorBoundary }: FallbackProps) => (
  <div role="alert" className="sheet max-w-[640px] p-5">
    <h1>This page can’t be shown</h1>
    <p className="mt-2">
      Something in it went wrong. Nothing you have kept is lost, and the other pages work.
    </p>
    <p className="mt-1 text-[14px] text-soft wrap-anywhere">{problemWords(error)}</p>
    <p className="mt-3 flex flex-wrap gap-2">
      <button type="button" className="press press-go" onClick={resetErrorBoundary}>
        Try again
      </button>
      <Link className="press" to="/">
        Go to Today
      </Link>
      <Link className="press" to="/desk">
        Save a backup
      </Link>
    </p>
  </div>
)
