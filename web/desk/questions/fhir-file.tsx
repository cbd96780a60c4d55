import type { Questionnaire } from '@acolhida/core/questions'
import { freeId } from '@acolhida/core/questions'
import { FileButton } from '../parts/file.tsx'

/** What a file of the standard held, and what could not be read; or why none of it could. */
export type FhirRead = { questionnaire: Questionnaire; unread: string[] } | { problem: string }

/** Opens questions from a file in the form of HL7 FHIR R4; what is read is shown before it is taken. */
export function OpenFhir({ taken, onRead }: { taken: readonly string[]; onRead: (read: FhirRead) => void }) {
  const open = async (file: File): Promise<void> => {
    try {
      const { readFhirQuestionnaire } = await import('@acolhida/core/schemas/fhir')
      const id = freeId(taken, 'from-a-file')
      onRead(readFhirQuestionnaire(await file.text(), `The file “${file.name}”`, id))
    } catch (error) {
      onRead({ problem: error instanceof Error ? error.message : String(error) })
    }
  }
  return (
    <FileButton accept=".json,application/json,application/fhir+json" onFile={open}>
      Take questions from a file
    </FileButton>
  )
}
