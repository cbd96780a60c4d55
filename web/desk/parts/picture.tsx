import { ActButton } from './act.tsx'
import { FileButton } from './file.tsx'

/** The longer side of a picture as it is kept, in pixels; and how much may be kept, in characters. */
const SIDE = 360
const MOST = 200_000

/** A picture made small enough to travel with the practice. @throws Error with a sentence */
async function small(file: File): Promise<string> {
  if (!/^image\/(png|jpeg|webp)$/.test(file.type))
    throw new Error('Please choose a PNG, JPEG or WebP picture.')
  const image = await createImageBitmap(file).catch(() => {
    throw new Error('This picture can’t be read.')
  })
  const scale = Math.min(1, SIDE / Math.max(image.width, image.height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.max(1, Math.round(image.width * scale))
  canvas.height = Math.max(1, Math.round(image.height * scale))
  const ground = canvas.getContext('2d')
  if (!ground) throw new Error('This browser can’t make pictures smaller.')
  ground.drawImage(image, 0, 0, canvas.width, canvas.height)
  for (const quality of [0.86, 0.7, 0.5]) {
    const made = canvas.toDataURL('image/jpeg', quality)
    if (made.length <= MOST) return made
  }
  throw new Error('This picture stays too large; please choose a plainer one.')
}

/** A picture: chosen, made small, shown, taken away. */
export function Picture({
  picture,
  onChange,
}: {
  picture: string | undefined
  onChange: (picture: string | undefined) => Promise<void>
}) {
  return (
    <div className="flex flex-wrap items-center gap-3">
      {picture && (
        <img src={picture} alt="" className="size-[72px] rounded-lg border border-line object-cover" />
      )}
      <FileButton
        accept="image/png,image/jpeg,image/webp"
        onFile={async (file) => onChange(await small(file))}
      >
        {picture ? 'Another picture' : 'Choose a picture'}
      </FileButton>
      {picture && (
        <ActButton className="press press-no" onAct={() => onChange(undefined)}>
          Take it away
        </ActButton>
      )}
    </div>
  )
}
