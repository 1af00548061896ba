"""
Forty designs at the edge of double precision, with values worked out in 80 digits (mpmath): offsets up to 10^12 SDs, SDs from 1e-150 to 1e150, products raw and
centred, four-way products of categories, levels of one respondent, nested factors, squares of squares, collinear predictors. Nothing here shares a line or a way
of computing with the program: the design is formed and solved by the textbook's formulas (docs/methods.md), which 80 digits can afford.

    python3 reference/odd-designs/designs.py > reference/odd-designs/designs.json
"""
import json, random, sys
from itertools import product as every
from mpmath import mp, mpf, sqrt, matrix, lu_solve, betainc, inverse

mp.dps = 80
rnd = random.Random(20261128)
text = lambda x: repr(x)  # the shortest text that a reader turns into the same double
gauss = lambda n, mean=0.0, sd=1.0, digits=None: [round(mean + sd * rnd.gauss(0, 1), digits) if digits is not None else mean + sd * rnd.gauss(0, 1) for _ in range(n)]

def mean(v): return sum(v) / len(v)
def sd(v): m = mean(v); return sqrt(sum((x - m) ** 2 for x in v) / (len(v) - 1))
def exact(cells): return [mpf(float(c)) for c in cells]

def component(name, d, metric):
    """Columns of one component: [(key, values)]."""
    cells = d["columns"][name]
    if name in d["categories"]:
        coding = d["categories"][name]
        levels = [l for l in dict.fromkeys(coding["levels"]) if l in cells]
        ref = coding["reference"]
        rows = [l for l in levels if l != ref]
        deviation = coding["coding"] == "deviation"
        return [(f"{name}[{l}]", [mpf(1) if c == l else (mpf(-1) if deviation and c == ref else mpf(0)) for c in cells]) for l in rows]
    v = exact(cells)
    in_product = any(name in t and len(t) > 1 for s in d["steps"] for t in s)
    if metric == "z" or (in_product and d["centring"] == "z"):
        m, s = mean(v), sd(v); v = [(x - m) / s for x in v]
    elif in_product and d["centring"] == "mean":
        m = mean(v); v = [x - m for x in v]
    return [(name, v)]

def columns(d, metric):
    out = []
    for step in d["steps"]:
        here = []
        for term in step:
            for parts in every(*[component(c, d, metric) for c in term]):
                values = [mpf(1)] * d["n"]
                for _, p in parts: values = [a * b for a, b in zip(values, p)]
                here.append(("*".join(k for k, _ in parts), values))
        out.append(here)
    return out

def tail_f(F, a, b): return betainc(mpf(b) / 2, mpf(a) / 2, 0, b / (b + a * F), regularized=True)

def fit(cols, y):
    """Least squares with intercept; a column that the earlier ones leave less than 1e-25 of is dropped."""
    n = len(y); my = mean(y); yc = [v - my for v in y]
    basis, kept, q = [], [], []
    for key, v in cols:
        m = mean(v); c = [x - m for x in v]; length = sqrt(sum(x * x for x in c))
        if length == 0: continue
        u = [x / length for x in c]; r = u[:]
        for _ in range(2):
            for b in basis:
                dot = sum(x * z for x, z in zip(r, b)); r = [x - dot * z for x, z in zip(r, b)]
        left = sqrt(sum(x * x for x in r))
        if left < mpf("1e-25"): continue
        basis.append([x / left for x in r]); kept.append((key, m, length, u))
    k = len(kept)
    if k == 0: return None
    G = matrix(k, k); h = matrix(k, 1)
    for i in range(k):
        h[i] = sum(a * b for a, b in zip(kept[i][3], yc))
        for j in range(k): G[i, j] = sum(a * b for a, b in zip(kept[i][3], kept[j][3]))
    Gi = inverse(G); beta = Gi * h
    e = [yc[i] - sum(beta[j] * kept[j][3][i] for j in range(k)) for i in range(n)]
    sse = sum(x * x for x in e); sst = sum(x * x for x in yc); df = n - k - 1; s2 = sse / df
    coef = {}
    for j, (key, m, length, _) in enumerate(kept):
        b = beta[j] / length; se = sqrt(s2 * Gi[j, j]) / length; t = b / se
        coef[key] = dict(b=b, se=se, t=t, p=tail_f(t * t, 1, df), tolerance=1 / Gi[j, j])
    R2 = 1 - sse / sst; F = ((sst - sse) / k) / s2
    return dict(k=k, df=df, R2=R2, sse=sse, F=F, pF=tail_f(F, k, df), s=sqrt(s2), coef=coef, intercept=my - sum(beta[j] / kept[j][2] * kept[j][1] for j in range(k)))

def solve(d):
    y = exact(d["columns"]["y"]); model = columns(d, "model"); z = columns(d, "z")
    zy = [(v - mean(y)) / sd(y) for v in y]
    steps, before = [], None
    for s in range(len(model)):
        f = fit([c for part in model[:s + 1] for c in part], y); fz = fit([c for part in z[:s + 1] for c in part], zy)
        dR2 = f["R2"] - (before["R2"] if before else 0); dk = f["k"] - (before["k"] if before else 0)
        change = None if dk == 0 else (dR2 / dk) / ((1 - f["R2"]) / f["df"])
        out = {k: f[k] for k in ("df", "R2", "sse", "F", "pF", "s", "intercept")}
        out.update(dR2=dR2, F_change=change, p_change=None if change is None else tail_f(change, dk, f["df"]), coef=f["coef"], beta={k: c["b"] for k, c in fz["coef"].items()})
        steps.append(out); before = f
    return steps

designs = []
def design(name, columns, steps, centring="mean", categories=None, tolerance=1e-9, digits=None):
    n = len(columns["y"])
    cells = {k: [c if isinstance(c, str) else text(c) for c in v] for k, v in columns.items()}
    designs.append(dict(name=name, n=n, columns=cells, steps=steps, centring=centring, categories=categories or {}, tolerance=tolerance))

def made(n, ox=0.0, oz=0.0, sx=1.0, sz=1.0, sy=1.0, oy=0.0, noise=1.0):
    a, b, e = gauss(n), gauss(n), gauss(n)
    return dict(x=[ox * sx + sx * v for v in a], z=[oz * sz + sz * v for v in b], y=[(oy + .5 * p - .3 * q + .4 * p * q + noise * r) * sy for p, q, r in zip(a, b, e)])

XZ = [[["x"], ["z"]], [["x", "z"]]]
for o in (1e3, 1e6, 1e9, 1e12): design(f"centred product, {o:.0e} SDs from 0", made(40, o, -o), XZ)
for o in (1e6, 1e12): design(f"z-scored product, {o:.0e} SDs from 0", made(40, o, o), XZ, "z")
# condition numbers of the raw columns: about the square of the offset for the coefficients, which a double's rounding of R meets
for o, tol in ((1e3, 1e-9), (1e5, 1e-8), (1e7, 1e-6), (1e8, 1e-5)): design(f"raw product, {o:.0e} SDs from 0", made(40, o, 2 * o), XZ, "raw", tolerance=tol)
for s in (1e-150, 1e-100, 1e-50, 1e50, 1e100, 1e150): design(f"predictors of SD {s:.0e}", made(30, sx=s, sz=1 / s), [[["x"]], [["z"]]])
for s in (1e-140, 1e140): design(f"outcome of SD {s:.0e}", made(30, sy=s), XZ)
for s in (1e-70, 1e70): design(f"product of SDs {s:.0e}", made(30, sx=s, sz=s), XZ)
design("outcome 1e+09 SDs from 0", made(30, oy=1e9), XZ, tolerance=1e-8)
# p rests on the residuals, 1e-7 of what the product is rounded by, to the power of df/2
design("all but no noise", made(30, noise=1e-7), XZ, tolerance=1e-8)
design("p far below 1e-300", made(400, noise=1e-3), XZ)
d = made(40); design("squares of squares", d, [[["x"]], [["x", "x"]], [["x", "x", "x", "x"]]])
d = made(40); design("squares of squares, raw", {**d, "x": [round(4 + v, 3) for v in d["x"]]}, [[["x"]], [["x", "x"]], [["x", "x", "x", "x"]]], "raw", tolerance=1e-8)
d = made(36); design("four-way product of numbers", {**d, "u": gauss(36), "v": gauss(36, 5)}, [[["x"], ["z"], ["u"], ["v"]], [["x", "z"], ["x", "z", "u", "v"]]])
def factor(n, levels): return [levels[i % len(levels)] for i in range(n)]
two = {g: dict(coding=c, reference="no", levels=["no", "yes"]) for g, c in (("f", "indicator"), ("g", "deviation"), ("h", "indicator"), ("k", "deviation"))}
n = 64; cat = {g: [("no", "yes")[(i >> b) & 1] for i in range(n)] for b, g in enumerate("fghk")}
design("four-way product of categories", {**cat, "y": gauss(n)}, [[["f"], ["g"], ["h"], ["k"]], [["f", "g"], ["f", "g", "h", "k"]]], categories=two)
three = {"f": dict(coding="indicator", reference="a", levels=["a", "b", "c"]), "g": dict(coding="deviation", reference="r", levels=["p", "q", "r"])}
n = 45; design("category by category by number", {"f": factor(n, "abc"), "g": ["pqr"[(i // 3) % 3] for i in range(n)], "x": gauss(n, 100, 3), "y": gauss(n)}, [[["f"], ["g"], ["x"]], [["f", "g"], ["f", "x"], ["g", "x"]], [["f", "g", "x"]]], categories=three)
n = 24; f1 = ["a"] * 12 + ["b"] * 11 + ["c"]
design("a level of one respondent", {"f": f1, "x": gauss(n), "y": gauss(n)}, [[["x"]], [["f"]]], categories={"f": three["f"]})
n = 30; alone = [f"r{i}" for i in range(12)] + ["rest"] * 18
design("a level for each of twelve respondents", {"f": alone, "x": gauss(n), "y": gauss(n)}, [[["x"]], [["f"]]], categories={"f": dict(coding="indicator", reference="rest", levels=["rest"] + alone[:12])})
n = 40; school = ["s1"] * 20 + ["s2"] * 20; room = [f"c{1 + i // 8}" for i in range(n)]
nest = {"s": dict(coding="indicator", reference="s1", levels=["s1", "s2"]), "c": dict(coding="indicator", reference="c1", levels=["c1", "c2", "c3", "c4", "c5"])}
room = ["c1"] * 10 + ["c2"] * 10 + ["c3"] * 7 + ["c4"] * 7 + ["c5"] * 6
design("classes nested in schools", {"s": school, "c": room, "x": gauss(n), "y": gauss(n)}, [[["s"]], [["c"]], [["x"]]], categories=nest)
design("schools after their classes", {"s": school, "c": room, "x": gauss(n), "y": gauss(n)}, [[["c"], ["x"]], [["s"]]], categories=nest)
for eps, tol in ((1e-3, 1e-9), (1e-5, 1e-8), (1e-7, 1e-6), (1e-9, 1e-4)):
    d = made(40); design(f"predictors apart by {eps:.0e}", {"x": d["x"], "z": [a + eps * b for a, b in zip(d["x"], d["z"])], "y": d["y"]}, [[["x"]], [["z"]]], tolerance=tol)
x = [float(i) for i in range(30)]; design("powers to the fourth, raw", {"x": x, "y": gauss(30)}, [[["x"], ["x", "x"]], [["x", "x", "x"], ["x", "x", "x", "x"]]], "raw", tolerance=1e-8)
design("powers to the fourth, centred", {"x": x, "y": gauss(30)}, [[["x"], ["x", "x"]], [["x", "x", "x"], ["x", "x", "x", "x"]]])
d = made(7); design("two more respondents than columns", {**d, "u": gauss(7), "v": gauss(7)}, [[["x"], ["z"]], [["u"], ["v"]]])
d = made(20); design("every respondent twice", {k: v + v for k, v in d.items()}, XZ)
d = made(30); design("counts of 2^53 and more", {**d, "x": [str(2 ** 53 + 2 * i * i) for i in range(30)]}, [[["x"]], [["z"]]])

out = dict(about="reference/odd-designs/designs.py, mpmath, 80 digits", designs=[])
def digits(v):
    if v is None or isinstance(v, int): return v
    if isinstance(v, dict): return {k: digits(x) for k, x in v.items()}
    if isinstance(v, list): return [digits(x) for x in v]
    return mp.nstr(v, 20, strip_zeros=False, min_fixed=1, max_fixed=0)
for d in designs:
    out["designs"].append({**d, "expected": digits(solve(d))})
    sys.stderr.write(f"{d['name']}\n")
json.dump(out, sys.stdout, ensure_ascii=False, separators=(",", ":")); print()
