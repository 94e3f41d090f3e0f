import { Mp4OutputFormat } from 'mediabunny'
import { videoEncoder } from '../video.ts'

/** H.264 in MP4, its index in front so that it plays while it comes in. */
export const encode = videoEncoder(() => new Mp4OutputFormat({ fastStart: 'in-memory' }), 'avc')
