/** Whether this device can speak at all. */
export const canSpeak = () => typeof speechSynthesis !== 'undefined' && typeof SpeechSynthesisUtterance !== 'undefined';

/** Says these one after another, in place of what was being said. */
export function speak(texts: readonly string[], language: string): void {
  if (!canSpeak()) return;
  speechSynthesis.cancel();
  for (const text of texts) {
    const said = new SpeechSynthesisUtterance(text);
    said.lang = language;
    speechSynthesis.speak(said);
  }
}

export function hush(): void {
  if (canSpeak()) speechSynthesis.cancel();
}
