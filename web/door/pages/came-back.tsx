import { Navigate } from 'react-router'
import { say } from '../parts/say.ts'
import { wayBack } from '../visit/way-back.ts'

/** Where the till sends people back to: it does not know their link, but their own browser does. */
export function CameBack() {
  const back = wayBack()
  if (back) return <Navigate to={back} replace />
  return (
    <div className="max-w-[640px]">
      <title>{say('my.back')}</title>
      <h1>{say('my.back')}</h1>
      <p className="mt-3">{say('my.back-mail')}</p>
    </div>
  )
}
