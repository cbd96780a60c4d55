import { runTerminal } from './terminal.ts'

const { output, error, code } = runTerminal(process.argv.slice(2))
if (output) process.stdout.write(output)
if (error) process.stderr.write(error)
process.exitCode = code
