/** A kiln, and how hot it is. */
export interface Kiln {
  name: string;
  celsius: number;
}

export const kilns: Kiln[] = [
  { name: 'Front loader', celsius: 1240 },
  { name: 'Raku', celsius: 20 },
];
