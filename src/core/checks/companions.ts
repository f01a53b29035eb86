/** Whether a companion file lies where the build looks, built into the application or not. */
export function lies(standsIn: string | undefined): boolean {
  return standsIn === 'its place' || standsIn === 'outside the target';
}
