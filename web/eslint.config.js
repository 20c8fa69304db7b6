import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import typescript from 'typescript-eslint'

const places = ['shed', 'plan', 'stock', 'bench', 'balance', 'power', 'field', 'sheet']

// A place never imports another place; both import shared.
const apart = places.map((place) => ({
  files: [`src/${place}/**`],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: places
          .filter((other) => other !== place)
          .map((other) => ({ group: [`**/${other}/**`], message: 'A place never imports another.' })),
      },
    ],
  },
}))

export default typescript.config(
  { ignores: ['node_modules', 'src/api/schema.d.ts', '../oaken_scale'] },
  typescript.configs.strict,
  vue.configs['flat/recommended'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: typescript.parser } } },
  { rules: { 'vue/multi-word-component-names': 'off' } },
  {
    files: ['src/shared/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: [{ group: places.map((place) => `**/${place}/**`), message: 'Shared knows no place.' }] },
      ],
    },
  },
  ...apart,
  prettier,
)
