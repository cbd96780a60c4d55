import { FileButton } from '../parts/file.tsx'
import { Card } from '../request/card.tsx'

/** The file that something comes from: what it needs, opening it, what is wrong with it, and what has come of it. */
export const FileCard = ({
  needs,
  accept,
  opened,
  problem,
  done,
  onFile,
}: {
  needs: string
  accept: string
  opened: boolean
  problem: string | undefined
  done: string | undefined
  onFile: (file: File) => unknown
}) => (
  <Card title="The file">
    <p className="mt-1.5 mb-3 text-[14px] text-soft">{needs}</p>
    <FileButton accept={accept} onFile={onFile}>
      {opened ? 'Open another file' : 'Open a file'}
    </FileButton>
    {problem && (
      <p role="alert" className="mt-2 font-semibold text-clay">
        {problem}
      </p>
    )}
    {done && (
      <p role="status" className="note tag-fits mt-3">
        {done}
      </p>
    )}
  </Card>
)
