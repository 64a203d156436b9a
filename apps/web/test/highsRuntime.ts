// Where the solver’s program lies, which Vite says by `?url`.
export default require.resolve('highs/runtime');
