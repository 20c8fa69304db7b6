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

const controls = ['input', 'select', 'textarea', 'table'].map((element) => ({
  element,
  message: 'Vuetify supplies the controls; a native one is listed here with its reason.',
}))
const native = [
  'src/bench/TypedReading.vue', // the reading: it takes what is typed anywhere on the Bench
  'src/shared/QuantityCell.vue', // 40 of them answer a drag within a frame
  'src/shared/TextCell.vue',
  'src/stock/CutParts.vue', // a row for each of 150 parts: the library's list takes 8 ms to stand
  'src/stock/OfferLine.vue', // a row for each outline of a drawing
  'src/sheet/PartsFromFile.vue', // a row for each line of a file; a hidden one that asks for the file
  'src/field/FieldCard.vue', // hidden ones that ask for a file, pressed by a button
  'src/sheet/ListFromFile.vue',
  'src/shed/ShedPlace.vue',
  'src/stock/DrawingDrop.vue',
]

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
  {
    files: ['src/**/*.vue'],
    ignores: native,
    rules: { 'vue/no-restricted-html-elements': ['error', ...controls] },
  },
  prettier,
)
