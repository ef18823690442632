import { ref, watch } from 'vue'

const stored = 'polite-tally-sound'

/** Whether this machine makes a soft sound when a hand goes up. Off until asked for. */
export const sound = ref(localStorage.getItem(stored) === 'on')
watch(sound, (on) => {
  localStorage.setItem(stored, on ? 'on' : 'off')
  if (on) play()
})

let audio: AudioContext | undefined

/** Two soft tones of our own, a fifth apart, a third of a second in all. */
export function play() {
  audio ??= new AudioContext()
  const at = audio.currentTime
  for (const [i, pitch] of [330, 495].entries()) {
    const tone = new OscillatorNode(audio, { type: 'sine', frequency: pitch })
    const volume = new GainNode(audio, { gain: 0 })
    tone.connect(volume).connect(audio.destination)
    const from = at + i * 0.11
    volume.gain.setValueAtTime(0, from)
    volume.gain.linearRampToValueAtTime(0.05, from + 0.03)
    volume.gain.exponentialRampToValueAtTime(0.0005, from + 0.22)
    tone.start(from)
    tone.stop(from + 0.25)
  }
}
