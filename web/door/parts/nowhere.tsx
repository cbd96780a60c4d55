import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { say } from './say.ts'

/** An address that leads to nothing (any more): what it was, why, and the way back to what is offered. */
export function Nowhere({ slug, title, children }: { slug: string; title: string; children?: ReactNode }) {
  return (
    <div className="max-w-[640px]">
      <title>{title}</title>
      <h1>{title}</h1>
      {children && <p className="mt-3">{children}</p>}
      <p className="mt-3">
        <Link className="way" to={`/${slug}`}>
          {say('services.see')}
        </Link>
      </p>
    </div>
  )
}
