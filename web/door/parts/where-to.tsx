import { ibanWords, type TransferTo } from '@acolhida/core/ledger'
import { useEffect, useState } from 'react'
import { say } from './say.ts'

/** Where a transfer goes, and what it names, with its code. */
export const WhereTo = ({ transfer: { name, iban, bic, reference, payload } }: { transfer: TransferTo }) => (
  <div className="mt-3 grid gap-3 sm:grid-cols-[1fr_auto]">
    <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1">
      {[
        [say('my.money-name'), name],
        [say('my.money-iban'), ibanWords(iban)],
        ...(bic ? [[say('my.money-bic'), bic]] : []),
        [say('my.money-reference'), reference],
      ].map(([what, value]) => (
        <div key={what} className="contents">
          <dt className="text-soft">{what}</dt>
          <dd className="figures wrap-anywhere select-all">{value}</dd>
        </div>
      ))}
    </dl>
    {payload && <Code payload={payload} />}
  </div>
)

/** The transfer as a code that banking programs scan; what draws it comes when it is wanted. */
function Code({ payload }: { payload: string }) {
  const [drawn, setDrawn] = useState<{ size: number; path: string }>()
  useEffect(() => {
    let here = true
    import('../../drawings/qr.ts')
      .then(({ qrCode }) => {
        if (here) setDrawn(qrCode(payload))
      })
      // Without the code, the words beside it say the same.
      .catch(() => undefined)
    return () => {
      here = false
    }
  }, [payload])
  if (!drawn) return null
  return (
    <svg
      role="img"
      aria-label={say('my.money-code')}
      viewBox={`0 0 ${drawn.size} ${drawn.size}`}
      className="w-36 bg-white"
      shapeRendering="crispEdges"
    >
      <path d={drawn.path} fill="#000" />
    </svg>
  )
}
