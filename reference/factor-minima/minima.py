"""
Random factor problems with the least criterion that a general optimizer finds from 40 starts (scipy's L-BFGS-B with bounds on the uniquenesses, numpy's eigenvalues):
maximum likelihood and minimum residual, with the true number of factors and with one too many, Heywood cases among them. It shares nothing with the program.

    python3 reference/factor-minima/minima.py 500 > all.json

minima.json holds 22 of the 1,000: ten that ten seeded starts did not solve, and others with several valleys or a uniqueness at its bound.
"""
import json, sys
import numpy as np
from scipy.optimize import minimize

rng = np.random.default_rng(20261128)
BOUND = 0.005

def problem(i):
    true = int(rng.integers(1, 4)); k = int(rng.integers(max(5, 2 * true + 2), 13)); n = int(rng.integers(60, 301))
    L = np.zeros((k, true))
    for j in range(k): L[j, j % true] = rng.uniform(.35, .95)
    L += rng.normal(0, .12, (k, true))
    h = (L ** 2).sum(1); L[h > .96] *= np.sqrt(.95 / h[h > .96])[:, None]
    psi = 1 - (L ** 2).sum(1)
    X = rng.normal(size=(n, true)) @ L.T + rng.normal(size=(n, k)) * np.sqrt(psi)
    R = np.round(np.corrcoef(X.T), 10)
    m = true + (i % 2)  # one too many in every second
    return (R, true, m) if (k - m) ** 2 >= k + m else problem(i)

def ml(R, m):
    k = len(R)
    def f(x):
        s = np.exp(-x / 2); w, v = np.linalg.eigh(R * np.outer(s, s)); w, v = w[:k - m], v[:, :k - m]
        return (w - np.log(w) - 1).sum(), ((1 - w) * v ** 2).sum(1)
    return f, np.log

def minres(R, m):
    k = len(R)
    def f(x):
        w, v = np.linalg.eigh(R - np.diag(x)); w, v = w[:k - m], v[:, :k - m]
        return (w ** 2).sum() / 2, -(w * v ** 2).sum(1)
    return f, lambda x: x

def least(make, R, m):
    f, to = make(R, m); k = len(R); found = []
    for s in range(40):
        start = np.clip(1 / np.diag(np.linalg.inv(R)), .01, 1) if s == 0 else rng.uniform(.02, .98, k)
        bounds = [(to(BOUND), None)] * k
        r = minimize(f, to(start), jac=True, method="L-BFGS-B", bounds=bounds, options=dict(maxiter=5000, maxfun=20000, ftol=1e-15, gtol=1e-9, maxcor=20))
        found.append((r.fun, r.x))
    best = min(found, key=lambda one: one[0])
    at_bound = bool((best[1] <= to(BOUND) + 1e-9).any())
    higher = sum(one[0] > best[0] + 1e-6 for one in found)
    return best[0], at_bound, int(higher)

out = []
for i in range(int(sys.argv[1])):
    R, true, m = problem(i)
    for name, make in (("maximum-likelihood", ml), ("minimum-residual", minres)):
        value, heywood, higher = least(make, R, m)
        out.append(dict(extraction=name, factors=m, true=true, r=[float(R[a, b]) for a in range(len(R)) for b in range(a)], items=len(R), minimum=value, heywood=heywood, higher=higher))
json.dump(out, sys.stdout, separators=(",", ":")); print()
