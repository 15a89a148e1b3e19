import { stagesOf, type DataPlate } from './data-plate.js';

/** What stands between two spaces. None of those that act by themselves is ever an isolation. */
export type Passage = 'hand-valve' | 'check-valve' | 'holding-valve' | 'minimum-pressure-valve' | 'regulator';

/** A part of a machine that holds air by itself once its neighbours are shut off. */
export interface Space {
  readonly code: string;
  readonly name: string;
  /** From where air can come while the machine stands, and through what. */
  readonly fedBy: readonly { readonly from: string; readonly through: Passage }[];
}

const network: Space = { code: 'network', name: 'network', fedBy: [] };

/** The spaces of a machine, by its family and plate, from the intake on. */
export function spacesOf(plate: DataPlate): readonly Space[] {
  switch (plate.family) {
    case 'piston':
    case 'piston-oil-free':
      return [
        {
          code: 'head-side',
          name: 'stages and coolers up to the check valve',
          fedBy: [{ from: 'receiver', through: 'check-valve' }],
        },
        { code: 'receiver', name: 'receiver', fedBy: [{ from: 'network', through: 'hand-valve' }] },
        network,
      ];
    case 'screw':
      return [
        {
          code: 'vessel',
          name: 'airend, vessel and oil circuit',
          fedBy: [{ from: 'outlet-side', through: 'minimum-pressure-valve' }],
        },
        {
          code: 'outlet-side',
          name: 'from the minimum-pressure valve to the outlet valve',
          fedBy: [{ from: 'network', through: 'hand-valve' }],
        },
        network,
      ];
    case 'high-pressure':
      return [
        ...Array.from({ length: stagesOf(plate) - 1 }, (_, index) => ({
          code: `stage-${index + 1}`,
          name: `stage ${index + 1} with its cooler and separator`,
          fedBy: [{ from: 'tower', through: 'check-valve' as const }],
        })),
        {
          code: 'tower',
          name: 'last separator and tower',
          fedBy: [{ from: 'panel', through: 'holding-valve' }],
        },
        {
          code: 'panel',
          name: 'panel and fill hoses',
          fedBy: [
            { from: 'bank', through: 'hand-valve' },
            { from: 'tower', through: 'holding-valve' },
          ],
        },
        { code: 'bank', name: 'bank and cylinders', fedBy: [] },
      ];
  }
}
