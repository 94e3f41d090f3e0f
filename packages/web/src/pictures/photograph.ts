/** The longer side of a photograph that is sent: somewhat more than sheets are worked with. */
const SENT_PX = 2400
const QUALITY = 0.92

/**
 * A photograph as it is sent: upright, no larger than is of use, and without what else its file tells of places and devices. Rejects what is no
 * picture.
 */
export async function photographToSend(file: Blob): Promise<Blob> {
  const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' })
  try {
    const share = Math.min(1, SENT_PX / Math.max(bitmap.width, bitmap.height))
    const canvas = document.createElement('canvas')
    canvas.width = Math.max(1, Math.round(bitmap.width * share))
    canvas.height = Math.max(1, Math.round(bitmap.height * share))
    const brush = canvas.getContext('2d')
    if (!brush) throw new Error('no canvas')
    brush.fillStyle = '#fff'
    brush.fillRect(0, 0, canvas.width, canvas.height)
    brush.drawImage(bitmap, 0, 0, canvas.width, canvas.height)
    return await new Promise<Blob>((done, fail) =>
      canvas.toBlob(blob => (blob ? done(blob) : fail(new Error('too large'))), 'image/jpeg', QUALITY),
    )
  } finally {
    bitmap.close()
  }
}
