import QRCode from 'qrcode';

interface ScanCodeProps {
  readonly address: string;
  readonly name: string;
  readonly size?: number;
}

const QUIET = 4;

/** A code that opens an address; dark on light in either scheme, as readers want it. */
export function ScanCode({ address, name, size: shown = 124 }: ScanCodeProps) {
  const { modules } = QRCode.create(address, { errorCorrectionLevel: 'M' });
  const size = modules.size + 2 * QUIET;
  const path = Array.from({ length: modules.size * modules.size }, (_, index) => index)
    .filter((index) => modules.data[index])
    .map((index) => `M${(index % modules.size) + QUIET} ${Math.floor(index / modules.size) + QUIET}h1v1h-1z`)
    .join('');
  return (
    <svg
      width={shown}
      height={shown}
      viewBox={`0 0 ${size} ${size}`}
      role="img"
      aria-label={name}
      shapeRendering="crispEdges"
      style={{ flex: 'none' }}
    >
      <rect width={size} height={size} fill="#ffffff" />
      <path d={path} fill="#000000" />
    </svg>
  );
}
