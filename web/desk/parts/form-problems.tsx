/** What stands in the way of sending a form: how many answers need another look, and what went wrong. */
export function FormProblems({ answers, problem }: { answers: number; problem: string | undefined }) {
  const said = [
    ...(answers > 0
      ? [`${answers === 1 ? 'One answer needs' : `${answers} answers need`} another look.`]
      : []),
    ...(problem ? [problem] : []),
  ]
  return said.map((problem) => (
    <p key={problem} role="alert" className="mt-2 text-[14px] font-semibold text-clay">
      {problem}
    </p>
  ))
}
