/** Short tones that are heard over a tap or a grinder; no file needed. */
export function playTones(pitches: readonly number[], seconds = 0.3): void {
  try {
    const audio = new AudioContext()
    for (const [i, pitch] of pitches.entries()) {
      const tone = audio.createOscillator()
      const loud = audio.createGain()
      const from = audio.currentTime + i * (seconds + 0.05)
      tone.frequency.value = pitch
      loud.gain.setValueAtTime(0.25, from)
      loud.gain.exponentialRampToValueAtTime(0.001, from + seconds)
      tone.connect(loud).connect(audio.destination)
      tone.start(from)
      tone.stop(from + seconds + 0.02)
    }
    setTimeout(() => void audio.close(), 1000 * pitches.length * (seconds + 0.05) + 500)
  } catch {
    // A browser that plays no sound still shows the words.
  }
}
