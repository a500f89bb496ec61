import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
    { ignores: ['src/api/generated', 'dist'] },
    js.configs.recommended,
    ...tseslint.configs.recommended,
    hooks.configs.flat['recommended-latest'],
    {
        files: ['src/**/*.tsx', 'src/**/use*.ts'],
        rules: {
            // Where a callback says that something is there, the compiler takes it to be there at every drawing.
            'no-restricted-syntax': [
                'error',
                {
                    selector: "MemberExpression[object.type='TSNonNullExpression'][object.expression.type='Identifier']",
                    message:
                        'The compiler looks into this at every drawing, also while it is not there. Ask with ?. or hand it over.',
                },
            ],
        },
    },
    { files: ['*.mjs', '*.cjs'], languageOptions: { globals: { process: 'readonly', module: 'readonly' } } },
);
