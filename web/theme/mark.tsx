/** The mark of the house: a tile with all its petals. */
export function Emblem({ size = 28 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 40 40" aria-hidden="true">
      <rect x="1" y="1" width="38" height="38" rx="7" fill="#fffdf8" stroke="#e3dac8" />
      {[0, 90, 180, 270].map((turn) => (
        <path
          key={turn}
          d="M20 18 C11 18 5 13 4 4 C13 5 18 11 18 18 Z"
          transform={`rotate(${turn} 20 20)`}
          fill="#2c5f4f"
        />
      ))}
      <circle cx="20" cy="20" r="4.6" fill="#2c5f4f" stroke="#d9982a" strokeWidth="1.8" />
    </svg>
  )
}
