"""The ladder of bench/ladder.ts in numpy, as the yardstick of its ratios: 5 steps x 12 columns, lstsq per step, b, R2 and
standard errors. usage: OPENBLAS_NUM_THREADS=1 /usr/bin/python3 bench/anchors/ladder_numpy.py [n ...]   (apt: python3-numpy)"""
import json, sys, time
import numpy as np

ENDS = [3, 6, 9, 11, 12]

def ladder(X, y):
    n = len(y)
    out = []
    total = ((y - y.mean()) ** 2).sum()
    for end in ENDS:
        A = np.column_stack([np.ones(n), X[:, :end]])
        b = np.linalg.lstsq(A, y, rcond=None)[0]
        e = y - A @ b
        s2 = e @ e / (n - end - 1)
        out.append((b, np.sqrt(s2 * np.diag(np.linalg.inv(A.T @ A))), 1 - e @ e / total))
    return out

for n in [int(v) for v in sys.argv[1:]] or [500, 5_000, 100_000, 1_000_000]:
    random = np.random.default_rng(1)
    X = np.round(100 * random.standard_normal((n, 12))) / 10
    y = np.round(100 * random.standard_normal(n)) / 10
    X[:, 11] = (X[:, 0] - X[:, 0].mean()) * (X[:, 1] - X[:, 1].mean())
    times = []
    for _ in range(9 if n < 1_000_000 else 4):
        start = time.perf_counter()
        ladder(X, y)
        times.append((time.perf_counter() - start) * 1e3)
    print(json.dumps(dict(n=n, ms=round(sorted(times)[len(times) // 2], 1))), flush=True)
