"""The sums of benchmarks/bench_joints.cpp's chain by NumPy: a million samples of twenty uniform (normal) terms."""

import time

import numpy as np

for name, draw in (("uniform", lambda g, shape: g.uniform(-0.02, 0.02, shape)),
                   ("normal", lambda g, shape: g.normal(0, 0.02 / 3, shape))):
    best, p = 1e9, 0
    for seed in range(5):
        start = time.perf_counter()
        total = draw(np.random.default_rng(seed), (20, 1_000_000)).sum(axis=0)
        p = np.mean(np.abs(total) <= 0.1)
        best = min(best, time.perf_counter() - start)
    print(f"{name}: {1000 * best:.0f} ms, within {p:.5f}")
