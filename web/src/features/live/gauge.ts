import { onScopeDispose, ref } from 'vue'

/** Where the level comes from: the microphone of this machine, or a tone that swells and fades, for trying it out. */
export type LevelSource = 'microphone' | 'simulated'

/** Whether the gauge is on the sheet. It hears nothing before it is told by what. */
export const gauge = ref(false)

/** The level of a frame of samples from −1 to 1, in steps from 0 to 10: decibels from −60 up, six to a step. */
export function levelOf(samples: Float32Array): number {
  let sum = 0
  for (const s of samples) sum += s * s
  const rms = Math.sqrt(sum / Math.max(1, samples.length))
  return rms === 0 ? 0 : Math.max(0, Math.min(10, Math.round((20 * Math.log10(rms) + 60) / 6)))
}

/** How loud the room is. Off until asked for; only the level is looked at, nothing is kept or sent. */
export function useGauge() {
  const level = ref<number>()
  const problem = ref('')
  let audio: AudioContext | undefined
  let stream: MediaStream | undefined
  let timer: ReturnType<typeof setInterval> | undefined

  async function start(source: LevelSource) {
    stop()
    problem.value = ''
    try {
      audio = new AudioContext()
      const analyser = new AnalyserNode(audio, { fftSize: 2048 })
      if (source === 'microphone') {
        stream = await navigator.mediaDevices.getUserMedia({ audio: true })
        audio.createMediaStreamSource(stream).connect(analyser)
      } else {
        const tone = new OscillatorNode(audio, { frequency: 220 })
        const swell = new OscillatorNode(audio, { frequency: 0.2 })
        const depth = new GainNode(audio, { gain: 0.15 })
        const volume = new GainNode(audio, { gain: 0.16 })
        swell.connect(depth).connect(volume.gain)
        tone.connect(volume).connect(analyser)
        tone.start()
        swell.start()
      }
      const samples = new Float32Array(analyser.fftSize)
      timer = setInterval(() => {
        analyser.getFloatTimeDomainData(samples)
        level.value = levelOf(samples)
      }, 250)
    } catch {
      stop()
      problem.value =
        'The microphone cannot be heard. Allow it for this page, or choose another in the settings of the browser.'
    }
  }

  function stop() {
    clearInterval(timer)
    stream?.getTracks().forEach((track) => track.stop())
    void audio?.close()
    audio = stream = undefined
    level.value = undefined
  }

  onScopeDispose(stop)
  return { level, problem, start, stop }
}
