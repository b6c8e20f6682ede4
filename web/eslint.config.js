import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'

export default ts.config(
  { ignores: ['dist', 'src/api/generated'] },
  ...ts.configs.strict,
  ...vue.configs['flat/recommended'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: ts.parser } } },
  {
    files: ['src/**/*.vue'],
    rules: {
      // What a person reads stands in messages/; a sign, a unit and the mark of the house need no translation.
      'vue/no-bare-strings-in-template': [
        'error',
        {
          allowlist: [...'()[]{}<>,.;:!?&+-=*/#%·•–—−|×±…→←↑↓½⅓≤≥✓✎°“”’', 'g', 'S', ':00'],
          attributes: {
            '/.+/': ['title', 'aria-label', 'aria-valuetext', 'label', 'placeholder', 'hint', 'alt', 'what', 'suffix', 'prefix'],
          },
          directives: ['v-text'],
        },
      ],
    },
  },
  {
    rules: {
      // Layout is the formatter's and the author's; these rules only move line breaks about.
      'vue/max-len': ['error', { code: 160, template: 160 }],
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/attributes-order': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/first-attribute-linebreak': 'off',
      'vue/multiline-html-element-content-newline': 'off',
    },
  },
)
