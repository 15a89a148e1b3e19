/** A cylinder, filled as far as it is. */
export function CylinderGlyph({ share }: { readonly share: number }) {
  const level = 92 - 66 * Math.min(1, Math.max(0, share));
  const shape = 'M17 4 h10 v9 c8 3 14 8 14 17 v56 q0 8 -8 8 h-22 q-8 0 -8 -8 v-56 c0 -9 6 -14 14 -17 z';
  return (
    <svg width={44} height={98} viewBox="0 0 44 98" aria-hidden style={{ flex: 'none' }}>
      <clipPath id="cylinder-shape">
        <path d={shape} />
      </clipPath>
      <rect
        x={0}
        y={level}
        width={44}
        height={98 - level}
        clipPath="url(#cylinder-shape)"
        fill="var(--mui-palette-slate)"
        opacity={0.55}
      />
      <path d={shape} fill="none" stroke="var(--mui-palette-text-primary)" strokeWidth={2.2} />
    </svg>
  );
}
