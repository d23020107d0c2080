/** HTML of a page of docs/, made while building: bootstrap/markdownPage.mjs. */
declare module '*.md' {
  const html: string
  export default html
}
