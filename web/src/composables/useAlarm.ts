/** A ring that needs no file: three short tones made in the browser, and a tremble where the device has one. */
let context: AudioContext | null = null

/** A browser lets no page make a sound before it was touched; called on the first touch. */
export function wakeAlarm(): void {
  context ??= typeof AudioContext === 'undefined' ? null : new AudioContext()
  void context?.resume()
}

export function ring(look: boolean): void {
  navigator.vibrate?.(look ? [120] : [250, 120, 250, 120, 400])
  if (!context) return
  const start = context.currentTime
  const tones = look ? [660] : [880, 880, 1175]
  tones.forEach((hertz, n) => {
    if (!context) return
    const tone = context.createOscillator()
    const loud = context.createGain()
    tone.frequency.value = hertz
    loud.gain.setValueAtTime(0.0001, start + n * 0.32)
    loud.gain.exponentialRampToValueAtTime(0.35, start + n * 0.32 + 0.03)
    loud.gain.exponentialRampToValueAtTime(0.0001, start + n * 0.32 + 0.28)
    tone.connect(loud).connect(context.destination)
    tone.start(start + n * 0.32)
    tone.stop(start + n * 0.32 + 0.3)
  })
}
