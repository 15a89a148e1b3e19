import { describe, expect, it } from '@jest/globals';
import seedrandom from 'seedrandom';
import { Drive } from './drive.js';
import { ScrewControl } from './screw-control.js';

function runsUnloadedFrom(moment: number) {
  const drive = new Drive('three-phase', 22_000, 40, null);
  const bar = { now: 5 };
  const control = new ScrewControl(
    {
      drive,
      feels: () => bar.now,
      vesselBar: () => 0,
      oilC: () => 60,
      outletC: () => 80,
      set: () => undefined,
      startsBelow: 1,
      cannotStop: () => false,
    },
    6.5,
    7.5,
    110,
  );
  control.act(moment);
  // Somebody else fills the network: there is nothing to load for.
  bar.now = 7;
  control.act(control.nextAt);
  return { control, drive };
}

describe('what is due at a moment', () => {
  // Of the moments of a course a sum of two is rounded down now and then: (t + 300) − t comes to less than 300.
  const random = seedrandom('moments');
  const moments = [274.6166376807935, ...Array.from({ length: 200 }, () => random() * 5000)];

  it('is among them where the sum comes short', () => {
    expect(moments.filter((moment) => moment + 300 - moment < 300).length).toBeGreaterThan(2);
  });

  it('is done at that moment, and not waited for for ever', () => {
    for (const moment of moments) {
      const { control, drive } = runsUnloadedFrom(moment);
      expect(drive.state).toBe('runs');
      expect(control.nextAt).toBe(moment + 300);
      control.act(control.nextAt);
      expect(drive.state).toBe('off');
      expect(control.nextAt).toBe(Infinity);
    }
  });
});
