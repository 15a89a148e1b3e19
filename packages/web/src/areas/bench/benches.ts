/** The benches by the last part of their address. */
export const benches = [
  { code: 'pump-up', name: 'Pump-up and leak-down' },
  { code: 'leaks', name: 'Leaks and their cost' },
  { code: 'ladder', name: 'Compression ladder' },
  { code: 'water', name: 'Condensate and cartridge' },
  { code: 'cylinders', name: 'Cylinders and banks' },
  { code: 'convert', name: 'Convert' },
] as const;

export type BenchCode = (typeof benches)[number]['code'];
