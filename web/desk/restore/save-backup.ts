import type { BackupTold } from './backup.worker.ts'

/** Everything in this desk as a file. @throws Error with a sentence when it can't be written */
export function writtenBackup(): Promise<Blob> {
  const worker = new Worker(new URL('./backup.worker.ts', import.meta.url), { type: 'module' })
  return new Promise<Blob>((resolve, reject) => {
    worker.addEventListener('message', ({ data }: MessageEvent<BackupTold>) =>
      'backup' in data ? resolve(data.backup) : reject(new Error(data.problem)),
    )
    worker.addEventListener('error', () =>
      reject(new Error('The backup could not be written: there is too little memory for it.')),
    )
    worker.postMessage('write')
  }).finally(() => worker.terminate())
}
