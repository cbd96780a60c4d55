/** What the looks of the bands mean. */
export const Legend = () => (
  <ul className="mt-5 flex flex-wrap gap-x-5 gap-y-1 text-[13px] text-soft">
    <li className="flex items-center gap-1.5">
      <span className="hatch inline-block h-3.5 w-6 rounded-sm" /> closed
    </li>
    <li className="flex items-center gap-1.5">
      {(['leaf', 'tile', 'clay', 'sun'] as const).map((mark) => (
        <span key={mark} className={`mark mark-${mark}`} />
      ))}{' '}
      session, in the mark of its service
    </li>
    <li className="flex items-center gap-1.5">
      <span className="inline-block h-3.5 w-6 border-x-2 border-dotted border-tile bg-(--open)" /> kept for
      some
    </li>
    <li className="flex items-center gap-1.5">
      <span className="inline-block h-3.5 w-6 rounded-sm border-[1.6px] border-dashed border-sun bg-sun-soft" />{' '}
      hold
    </li>
    <li className="flex items-center gap-1.5">
      <span className="inline-block h-3.5 w-6 rounded-sm bg-leaf-soft" /> kept clear
    </li>
    <li className="flex items-center gap-1.5">
      <span className="dot inline-block size-[7px] rounded-full bg-leaf" /> opening
    </li>
    <li className="flex items-center gap-1.5">
      <span className="dot inline-block h-3.5 w-0.5 bg-clay" /> now
    </li>
  </ul>
)
