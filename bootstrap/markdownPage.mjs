import MarkdownIt from 'markdown-it'

/**
 * Vite: a Markdown file of docs/ is imported as the HTML that it stands for, made while building. Links to other files of
 * docs/ lead to the guide's own pages.
 */
export function markdownPage() {
  const markdown = new MarkdownIt({ typographer: true })
  const link =
    markdown.renderer.rules.link_open ?? ((tokens, i, options, _env, self) => self.renderToken(tokens, i, options))
  markdown.renderer.rules.link_open = (tokens, i, options, env, self) => {
    const href = tokens[i].attrGet('href') ?? ''
    const page = /^([a-z]+)\.md$/.exec(href)
    if (page) tokens[i].attrSet('href', page[1] === 'guide' ? '/guide' : `/guide/${page[1]}`)
    return link(tokens, i, options, env, self)
  }
  return {
    name: 'markdown-page',
    enforce: 'pre',
    transform(code, id) {
      if (!id.endsWith('.md')) return null
      return { code: `export default ${JSON.stringify(markdown.render(code))}`, map: null }
    },
  }
}
