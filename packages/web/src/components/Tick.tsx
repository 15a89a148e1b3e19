/** A step that was gone through, or not. */
export function Tick({ on, size = 28 }: { readonly on: boolean; readonly size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 28 28" aria-hidden style={{ flex: 'none' }}>
      <circle
        cx={14}
        cy={14}
        r={12}
        fill={on ? 'var(--mui-palette-primary-main)' : 'none'}
        stroke={on ? 'var(--mui-palette-primary-main)' : 'var(--mui-palette-strongRule)'}
        strokeWidth={2}
      />
      {on && (
        <path
          d="M8 14.5 L12.5 19 L20.5 9.5"
          fill="none"
          stroke="var(--mui-palette-primary-contrastText)"
          strokeWidth={2.6}
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      )}
    </svg>
  );
}
