import { onScopeDispose, ref } from 'vue'

/** Longer than this nothing is recorded at once. */
const MOST_S = 300

/** Records by the microphone of this machine; `done` gets what was recorded. Nothing is heard by anyone before one asks for it. */
export function useRecorder(done: (recording: Blob) => unknown) {
  const on = ref(false)
  const seconds = ref(0)
  const why = ref('')
  let recorder: MediaRecorder | null = null
  let timer: ReturnType<typeof setInterval> | undefined

  async function start(): Promise<void> {
    why.value = ''
    try {
      const stream = await navigator.mediaDevices.getUserMedia({
        audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
      })
      const pieces: Blob[] = []
      recorder = new MediaRecorder(stream)
      recorder.ondataavailable = event => pieces.push(event.data)
      recorder.onstop = () => {
        for (const track of stream.getTracks()) track.stop()
        clearInterval(timer)
        on.value = false
        if (pieces.some(piece => piece.size > 0)) void done(new Blob(pieces))
      }
      recorder.start()
      on.value = true
      seconds.value = 0
      timer = setInterval(() => {
        seconds.value++
        if (seconds.value >= MOST_S) stop()
      }, 1000)
    } catch {
      why.value = 'No microphone can be used here: there is none, or the browser does not allow it.'
    }
  }
  function stop(): void {
    if (recorder?.state === 'recording') recorder.stop()
  }
  onScopeDispose(stop)

  const may = typeof MediaRecorder !== 'undefined' && 'mediaDevices' in navigator
  return { on, seconds, why, may, start, stop }
}
