/** What a device is most likely called, until somebody says better. */
export function guessName(agent: string): string {
  if (/iPad|Tablet|Android(?!.*Mobile)/u.test(agent)) return "Tablet";
  if (/iPhone|Android|Mobile/u.test(agent)) return "Phone";
  return "Computer";
}
