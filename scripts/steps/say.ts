/** One line for a step that begins. */
export function step(text: string): void {
  console.log(`· ${text}`);
}

/** What a person must mend before it can go on: printed without a stack. */
export class Remedy extends Error {
  override name = 'Remedy';
}
