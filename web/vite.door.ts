import { application } from './vite.shared.ts'

export default application('door', 4190, 4180)
