/** The colours of the page: the same roles by day and by night. */
export interface Tokens {
  readonly paper: string;
  readonly sheet: string;
  readonly ink: string;
  readonly secondInk: string;
  readonly hairline: string;
  readonly strongRule: string;
  /** Action. */
  readonly verdigris: string;
  readonly onVerdigris: string;
  /** A wash of verdigris behind what is chosen. */
  readonly verdigrisGround: string;
  /** What is nearing. */
  readonly brass: string;
  readonly brassGround: string;
  /** What is late. */
  readonly oxide: string;
  readonly oxideGround: string;
  /** What is settled. */
  readonly slate: string;
  readonly slateGround: string;
}

export const light: Tokens = {
  paper: '#F5F1E8',
  sheet: '#FBF9F4',
  ink: '#1E2A2E',
  secondInk: '#5A666A',
  hairline: '#DAD3C4',
  strongRule: '#C4BBA8',
  verdigris: '#17605A',
  onVerdigris: '#FBF9F4',
  verdigrisGround: '#DCE9E5',
  brass: '#855207',
  brassGround: '#F0DFBE',
  oxide: '#A3341F',
  oxideGround: '#F3D8CF',
  slate: '#4D6470',
  slateGround: '#DDE4E6',
};

export const dark: Tokens = {
  paper: '#161C1E',
  sheet: '#1E2628',
  ink: '#ECE7DB',
  secondInk: '#A6B1B3',
  hairline: '#333E41',
  strongRule: '#4F5C60',
  verdigris: '#74C4B8',
  onVerdigris: '#10211F',
  verdigrisGround: '#21393A',
  brass: '#E3B662',
  brassGround: '#3B301A',
  oxide: '#F0937D',
  oxideGround: '#44241D',
  slate: '#A3B8C2',
  slateGround: '#29363C',
};
