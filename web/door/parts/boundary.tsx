import type { ReactNode } from 'react'
import { ErrorBoundary, type FallbackProps } from 'react-error-boundary'
import { say } from './say.ts'

/**
 * A page that fails says so, with a way on; what was typed stays on this device.
 * @param at which page it is: another one begins anew
 */
export const Boundary = ({ at, children }: { at: string; children: ReactNode }) => (
  <ErrorBoundary FallbackComponent={Failed} resetKeys={[at]}>
    {children}
  </ErrorBoundary>
)

const Failed = ({ resetErrorBoundary }: FallbackProps) => (
  <div role="alert" className="sheet max-w-[640px] p-5">
    <h1>{say('failed.head')}</h1>
    <p className="mt-2">{say('failed')}</p>
    <button type="button" className="press press-go mt-3" onClick={resetErrorBoundary}>
      {say('failed.again')}
    </button>
  </div>
)
