import fc from 'fast-check'

// The same made-up bodies in every run: what is red is red again, on any machine. To look farther: SEED=7 npx vitest run
fc.configureGlobal({ seed: Number(process.env.SEED ?? 20261124) })
