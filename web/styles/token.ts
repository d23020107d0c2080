/**
 * A colour of the style sheets, for what is drawn by script: a chart, a canvas. Empty where there is no page.
 *
 * @param name as in styles/main.scss and styles/colours.scss, without its dashes
 * @param alpha two hexadecimal digits behind an opaque colour
 */
export const token = (name: string, alpha = ''): string =>
  `${getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim()}${alpha}`
