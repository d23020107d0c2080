let known: boolean | null = null

/**
 * Whether pictures are drawn by the processor, as where there is no graphics card or it may not be used. Smoothed edges
 * cost it most of a picture's time.
 */
export function drawnBySoftware(): boolean {
  if (known !== null) return known
  const gl = document.createElement('canvas').getContext('webgl2')
  const info = gl?.getExtension('WEBGL_debug_renderer_info')
  const name = gl && info ? String(gl.getParameter(info.UNMASKED_RENDERER_WEBGL)) : ''
  gl?.getExtension('WEBGL_lose_context')?.loseContext()
  return (known = /swiftshader|llvmpipe|software|basic render/i.test(name))
}
