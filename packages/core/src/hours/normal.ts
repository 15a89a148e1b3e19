/**
 * Φ(z): the chance that a normally distributed figure lies below z deviations, to 15 digits (West 2005, after
 * Hart 1968 *(memory)*). Asked some hundred times for each machine of a fleet, where the library's series takes too
 * long; a test compares the two.
 *
 * @param tail e^(−z²/2), where the caller has it already
 */
export function normalBelow(z: number, tail = Math.exp(-0.5 * z * z)): number {
  const x = Math.abs(z);
  if (x > 37) return z > 0 ? 1 : 0;
  let beyond: number;
  if (x < 7.07106781186547) {
    let over = 3.52624965998911e-2 * x + 0.700383064443688;
    over = over * x + 6.37396220353165;
    over = over * x + 33.912866078383;
    over = over * x + 112.079291497871;
    over = over * x + 221.213596169931;
    over = over * x + 220.206867912376;
    let under = 8.83883476483184e-2 * x + 1.75566716318264;
    under = under * x + 16.064177579207;
    under = under * x + 86.7807322029461;
    under = under * x + 296.564248779674;
    under = under * x + 637.333633378831;
    under = under * x + 793.826512519948;
    under = under * x + 440.413735824752;
    beyond = (tail * over) / under;
  } else {
    const fraction = x + 1 / (x + 2 / (x + 3 / (x + 4 / (x + 0.65))));
    beyond = tail / fraction / 2.506628274631;
  }
  return z > 0 ? 1 - beyond : beyond;
}
