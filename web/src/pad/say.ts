// Says something aloud: in words where the browser speaks, with a tone otherwise.

const speaks = () =>
  typeof window !== 'undefined' && 'speechSynthesis' in window && 'SpeechSynthesisUtterance' in window;

/** A short tone; higher for what was taken than for what was not. */
function tone(good: boolean) {
  const Audio = window.AudioContext;
  if (!Audio) return;
  const audio = new Audio();
  const note = audio.createOscillator();
  note.frequency.value = good ? 880 : 330;
  note.connect(audio.destination);
  note.start();
  note.stop(audio.currentTime + 0.15);
  note.onended = () => void audio.close();
}

/** An angle as it is spoken: its sign is a word. */
export const spoken = (text: string): string =>
  text
    .replaceAll('−', 'minus ')
    .replaceAll('°', ' degrees ')
    .replaceAll('′', ' minutes ')
    .replaceAll(/\s+/g, ' ')
    .trim();

export function say(text: string, good = true): void {
  if (!speaks()) return tone(good);
  window.speechSynthesis.cancel();
  window.speechSynthesis.speak(new SpeechSynthesisUtterance(spoken(text)));
}
