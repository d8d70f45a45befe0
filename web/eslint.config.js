import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

// Layers of src, the lowest first. A file imports from its own layer and from those below it alone.
const layers = [['measure', 'api'], ['drawings'], ['ui'], ['cut'], ['stations'], ['app']];

/** For each layer, what it may not import: every layer above it, and of a station any other station. */
const downwards = layers.map((layer, i) => {
  const above = layers.slice(i + 1).flat();
  const patterns = above.map((name) => ({
    regex: `^(\\.\\./)+${name}/`,
    message: `${layer.join(' and ')} stand below ${name}.`,
  }));
  if (layer[0] === 'stations')
    patterns.push({
      regex: '^\\.\\./(?!\\.\\.)',
      message: 'No station leans on another: what both need stands in cut, ui or drawings.',
    });
  return {
    files: layer.map((name) => `src/${name}/**`),
    rules: { 'no-restricted-imports': ['error', { patterns }] },
  };
});

export default tseslint.config(
  { ignores: ['dist', 'wasm', 'src/api/schema.d.ts'] },
  ...tseslint.configs.recommendedTypeChecked,
  reactHooks.configs.flat.recommended,
  {
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
    },
  },
  ...downwards.filter(({ rules }) => rules['no-restricted-imports'][1].patterns.length > 0),
);
