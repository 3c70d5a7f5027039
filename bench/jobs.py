"""Writes the benchmark jobs of bench/jobs: bag-sized rectangles, kits, patches, dissections, shapes, folds, scraps.

All sizes are invented. Run it again to get the same files; `known` in the table below is a length known by
construction or proven, in the job's units, and is kept in bench/jobs/known.json.
"""

import json
import math
import random
from pathlib import Path

HERE = Path(__file__).parent / "jobs"
KNOWN = {}


def roll(width=44, **more):
    return {"id": "roll", "kind": "roll", "width": width, **more}


def piece(id, outline, count=1, grain="either", **more):
    return {"id": id, "count": count, "outline": outline, "grain": grain, "cloths": ["roll"], **more}


def rect(id, w, h, count=1, **more):
    return piece(id, {"rect": [w, h]}, count, **more)


def job(name, pieces, cloths=None, **rules):
    return {
        "format": "bofta-job",
        "version": 1,
        "units": "in",
        "name": name,
        "pieces": pieces,
        "cloths": cloths or [roll()],
        "rules": {"seed": 1, "seconds": 5, **rules},
    }


def write(name, pieces, cloths=None, known=None, **rules):
    (HERE / f"{name}.json").write_text(json.dumps(job(name, pieces, cloths, **rules), indent=1) + "\n")
    if known is not None:
        KNOWN[name] = known


def notched(w, h, n):
    return {"polygon": [[n, 0], [w - n, 0], [w - n, n], [w, n], [w, h], [0, h], [0, n], [n, n]]}


def half_round(d, n=24):
    r = d / 2
    arc = [[r + r * math.cos(math.pi * i / n), r * math.sin(math.pi * i / n)] for i in range(n + 1)]
    return {"polygon": [[round(x, 4), round(y, 4)] for x, y in arc]}


def rounded(w, h, r, n=6):
    corners = []
    for cx, cy, start in [(w - r, r, -90), (w - r, h - r, 0), (r, h - r, 90), (r, r, 180)]:
        for i in range(n + 1):
            a = math.radians(start + 90 * i / n)
            corners.append([round(cx + r * math.cos(a), 4), round(cy + r * math.sin(a), 4)])
    return {"polygon": corners}


def trapezoid(low, high, h):
    s = (low - high) / 2
    return {"polygon": [[0, 0], [low, 0], [low - s, h], [s, h]]}


def dissected(rng, w, h, n, step):
    """A w × h rectangle cut at random into n, in multiples of step; one in four a pinwheel where there is room."""
    parts = [(round(w / step), round(h / step))]
    least = max(2, round(1 / step))
    while len(parts) < n:
        i = max((rng.randrange(len(parts)) for _ in range(3)), key=lambda k: parts[k][0] * parts[k][1])
        a, b = parts[i]
        if min(a, b) >= 6 * least and len(parts) + 4 <= n and rng.random() < 0.25:
            x1 = rng.randrange(a // 5 + 1, a // 2)
            x2 = rng.randrange(x1 + least, a - a // 6)
            y1 = rng.randrange(b // 5 + 1, b // 2)
            y2 = rng.randrange(y1 + least, b - b // 6)
            parts[i] = (x2, y1)
            parts += [(a - x2, y2), (a - x1, b - y2), (x1, b - y1), (x2 - x1, y2 - y1)]
            continue
        if a >= b and a >= 2 * least:
            at = rng.randrange(max(least, a // 4), max(least, a - a // 4) + 1)
            parts[i] = (at, b)
            parts.append((a - at, b))
        elif b >= 2 * least:
            at = rng.randrange(max(least, b // 4), max(least, b - b // 4) + 1)
            parts[i] = (a, at)
            parts.append((a, b - at))
    rng.shuffle(parts)
    return [
        rect(f"p{k}", *((a * step, b * step) if rng.random() < 0.5 else (b * step, a * step)))
        for k, (a, b) in enumerate(parts)
        if a > 0 and b > 0
    ]


def bag_like(rng, n, most=20):
    return [rect(f"p{k}", rng.randrange(16, 8 * most) / 8, rng.randrange(16, 8 * most) / 8) for k in range(n)]


def scrap_puzzle(rng, per_scrap):
    """Scraps cut into pieces by straight cuts along their axes; each piece a hundredth smaller, so that all fit.

    Gives the pieces, and the scraps with a roll to buy from beside them.
    """
    cloths, pieces = [], []
    for s, n in enumerate(per_scrap):
        w, h = rng.randrange(10, 17), rng.randrange(8, 13)
        cut = rng.choice(["corner", "slope", "none"])
        if cut == "corner":
            c = rng.randrange(2, 5)
            outline = [[0, 0], [w, 0], [w, h - c], [w - c, h], [0, h]]
        elif cut == "slope":
            outline = [[0, 0], [w, 0], [w - rng.randrange(1, 4), h], [0, h]]
        else:
            outline = [[0, 0], [w, 0], [w, h], [0, h]]
        cloths.append({"id": f"scrap{s}", "kind": "scrap", "polygon": outline, "owned": True})
        parts = [outline]
        while len(parts) < n:
            parts.sort(key=area)
            part = parts.pop()
            xs, ys = [p[0] for p in part], [p[1] for p in part]
            along = max(xs) - min(xs) > max(ys) - min(ys)
            low, high = (min(xs), max(xs)) if along else (min(ys), max(ys))
            at = low + (high - low) * rng.uniform(0.3, 0.7)
            parts += [clip(part, along, at, True), clip(part, along, at, False)]
        for part in parts:
            cx = sum(p[0] for p in part) / len(part)
            cy = sum(p[1] for p in part) / len(part)
            shrunk = [[round(cx + (x - cx) * 0.99, 4), round(cy + (y - cy) * 0.99, 4)] for x, y in part]
            ids = [c["id"] for c in cloths]
            pieces.append((f"p{len(pieces)}", shrunk, ids))
    names = [c["id"] for c in cloths] + ["roll"]
    rng.shuffle(pieces)
    made = [
        {"id": i, "count": 1, "outline": {"polygon": o}, "grain": "either", "cloths": names} for i, o, _ in pieces
    ]
    return made, cloths + [roll()]


def tiles(rng, w, h, n):
    """A w × h rectangle cut from side to side again and again, the largest part each time, mostly into quadrilaterals."""
    parts = [[(0, 0), (w, 0), (w, h), (0, h)]]
    while len(parts) < n:
        part = parts.pop(max(range(len(parts)), key=lambda k: area(parts[k])))
        m = len(part)
        i = rng.randrange(m)
        j = (i + (2 if m == 4 else 1 + rng.randrange(m - 1))) % m
        i, j = min(i, j), max(i, j)

        def within(k):
            (ax, ay), (bx, by), t = part[k], part[(k + 1) % m], rng.uniform(0.25, 0.75)
            return (round(ax + t * (bx - ax), 3), round(ay + t * (by - ay), 3))

        p, q = within(i), within(j)
        parts += [[p] + part[i + 1 : j + 1] + [q], [q] + part[j + 1 :] + part[: i + 1] + [p]]
    rng.shuffle(parts)
    made = []
    for k, part in enumerate(parts):
        left, low = min(x for x, _ in part), min(y for _, y in part)
        outline = [[round(x - left, 4), round(y - low, 4)] for x, y in part]
        made.append(piece(f"p{k}", {"polygon": outline}, grain="length"))
    return made


def area(p):
    return abs(sum(p[i][0] * p[(i + 1) % len(p)][1] - p[(i + 1) % len(p)][0] * p[i][1] for i in range(len(p)))) / 2


def clip(part, along, at, below):
    k = 0 if along else 1
    inside = lambda p: p[k] <= at if below else p[k] >= at
    out = []
    for i in range(len(part)):
        a, b = part[i], part[(i + 1) % len(part)]
        if inside(a):
            out.append(a)
        if inside(a) != inside(b):
            t = (at - a[k]) / (b[k] - a[k])
            out.append([a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])])
    return out


def main():
    HERE.mkdir(exist_ok=True)
    rng = random.Random(33)
    # Bag-sized rectangles.
    tote = [rect("panel", 18.5, 17, 2, grain="length"), rect("strap", 4, 26, 2), rect("pocket", 9, 15)]
    write("rect-tote", tote, [roll(54)])
    write("rect-harvest-tote-lined", tote + [rect("lining", 18.5, 16.5, 2), rect("facing", 18.5, 4, 2)], [roll(54)])
    write("rect-four-sacks", [rect("sack", 12, 28, 4)], known=36)
    caddy = [
        rect("wall", 15.5, 9.25, 2), rect("end", 8.5, 9.25, 2), rect("base", 15.5, 8.5),
        rect("divider", 8, 7.75, 3), rect("pocket", 19.25, 6.5, 2), rect("small pocket", 11.75, 6.5, 2),
        rect("handle", 4, 22, 2), rect("binding", 2.25, 40, 2), rect("tab", 3, 4, 4), rect("loop", 2, 5, 4),
    ]
    write("rect-caddy", caddy)
    duffel = [
        rect("body", 22.5, 36, 1, grain="length"), rect("end", 11.5, 11.5, 2), rect("zip panel", 3.5, 22.5, 2),
        rect("pocket", 14, 12, 2), rect("strap", 4, 40, 3), rect("tab", 4, 3, 6),
    ]
    write("rect-duffel", duffel, [roll(58)])
    write("rect-pouch-kits", [rect("front", 9.5, 6.75, 24), rect("lining", 9.25, 6.5, 24), rect("tab", 2.5, 3, 24)])
    write("rect-patches", [rect("five", 5, 5, 40), rect("strip", 2.5, 20, 12), rect("square", 2.5, 2.5, 60)])
    for k in range(3):
        big = [rect(f"p{i}", rng.randrange(64, 200) / 8, rng.randrange(64, 240) / 8) for i in range(5 + 2 * k)]
        write(f"rect-few-large-{k + 1}", big)
    for n in (20, 40, 60):
        write(f"rect-mixed-{n}", bag_like(rng, n), [roll(54)])
    # Dissections: the best length is known by construction.
    squares = [18, 15, 14, 10, 9, 8, 7, 4, 1]
    write("cut-33x32", [rect(f"s{s}", s, s) for s in squares], [roll(33)], known=32)
    order21 = [50, 42, 37, 35, 33, 29, 27, 25, 24, 19, 18, 17, 16, 15, 11, 9, 8, 7, 6, 4, 2]
    write("cut-112x112", [rect(f"s{s}", s, s) for s in order21], [roll(112)], known=112)
    for n in (12, 20, 25, 30, 40, 45, 50, 60):
        w, h = rng.randrange(40, 60), rng.randrange(24, 60)
        write(f"cut-{n}", dissected(rng, w, h, n, 1), [roll(w)], known=h)
    # The same in half inches is a harder puzzle: hardly any pieces but the right ones fit beside each other.
    for n in (16, 24, 32, 48):
        w, h = rng.randrange(40, 60), rng.randrange(24, 60)
        write(f"halves-{n}", dissected(rng, w, h, n, 0.5), [roll(w)], known=h)
    # Edge to edge.
    for name in ("tote", "caddy", "duffel", "pouch-kits", "mixed-20", "mixed-40", "mixed-60", "few-large-2"):
        job = json.loads((HERE / f"rect-{name}.json").read_text())
        write(f"through-{name}", job["pieces"], job["cloths"], cuts="through")
    # Shapes alone, and shapes among rectangles.
    write("shape-notched", [piece("panel", notched(18, 16, 3), 6), piece("small", notched(11, 9, 2), 6)])
    write("shape-half-rounds", [piece("face", half_round(12), 10), piece("small", half_round(8), 10)])
    write("shape-flaps", [piece("flap", trapezoid(11, 7, 6), 12, mirror="pairs"), piece("wedge", trapezoid(9, 2, 7), 12)])
    crown = {"polygon": [[0, 0], [9, 0], [9, 7], [6.5, 4], [4.5, 8], [2.5, 4], [0, 7]]}
    ell = {"polygon": [[0, 0], [10, 0], [10, 4], [4, 4], [4, 11], [0, 11]]}
    write("shape-free", [piece("crown", crown, 8), piece("ell", ell, 8), piece("round", {"circle": 5}, 8, grain="any")])
    totes = [
        piece("panel", notched(18.5, 17, 2.5), 4, grain="length"), rect("strap", 4, 26, 4), rect("tab", 2.5, 2.5, 8),
        rect("pocket", 9, 15, 2),
    ]
    write("mix-boxed-totes", totes, [roll(54)])
    sacks = [piece("base", {"circle": 9.5}, 4, grain="any"), rect("wall", 29.5, 14, 4), rect("casing", 14.5, 3.5, 8)]
    write("mix-round-sacks", sacks)
    pouches = [
        piece("face", half_round(9), 8), rect("base", 9, 5, 4), rect("zip", 2, 11, 8), rect("lining", 9, 9.5, 4),
        piece("flap", trapezoid(8, 5, 4), 8),
    ]
    write("mix-pouches", pouches)
    kneeler = [
        piece("end", rounded(12, 12, 3), 2), rect("body", 20.5, 34, 1), rect("pocket", 13, 11, 2),
        piece("flap", rounded(13, 6, 2), 2), rect("strap", 4, 30, 3), rect("tab", 3, 4, 6), rect("zip panel", 3, 20.5, 2),
    ]
    write("mix-duffel", kneeler, [roll(58)])
    caddy_mix = [
        piece("side", notched(16, 11, 2.5), 4), rect("divider", 8, 7, 6), piece("handle", rounded(4, 18, 2), 2),
        rect("pocket", 12, 6.5, 4), rect("square", 5, 5, 8), piece("scallop", half_round(6), 6),
    ]
    write("mix-caddy", caddy_mix)
    # Folded, scraps, several cloths.
    fold = {"selvedge": 0.5, "trim": 0.5, "layers": 2}
    write("fold-tote", [rect("panel", 18.5, 17, 2, grain="length"), rect("strap", 4, 26, 2), rect("pocket", 9, 15)], [roll(27, **fold)])
    write("fold-boxed", [piece("panel", notched(18, 16, 2.5), 4, grain="length"), piece("flap", trapezoid(9, 6, 5), 2, grain="length"), piece("base", {"circle": 8}, 1, grain="any")], [roll(22, **fold)])
    write("fold-wide", [rect("body", 34, 15, 1, grain="length"), rect("end", 9, 9, 4), rect("tab", 3, 3, 6)], [roll(22, **fold)])
    for k, per in enumerate([(4, 4, 4), (6, 6), (3, 4, 5), (5, 4, 3)]):
        write(f"scrap-{k + 1}", *scrap_puzzle(rng, per), known=0)
    # Single scraps, and shapes that tile the width: only their own sides fit together.
    own = random.Random(47)
    for k in (5, 6, 7):
        write(f"scrap-{k}", *scrap_puzzle(own, (12,)), known=0)
    for n in (12, 16, 20):
        w, h = own.randrange(30, 46), own.randrange(20, 36)
        # A fiftieth of an inch to spare, since corners are rounded.
        write(f"tiles-{n}", tiles(own, w, h, n), [roll(w + 0.02)], known=h)
    quarters = [
        {"id": "roll", "kind": "roll", "width": 44, "step": 4.5, "min": 9, "price": {"amount": 14, "per": 36}},
        {"id": "fq", "kind": "sheet", "rect": [21, 18], "count": 3, "owned": True},
        {"id": "odd", "kind": "scrap", "polygon": [[0, 0], [14, 0], [15, 9], [6, 11], [0, 7]],
         "flaws": [{"circle": [5, 4, 0.5]}], "owned": True},
    ]
    several = [
        rect("panel", 14, 12, 4), rect("pocket", 9, 8, 2), rect("strap", 3, 20, 2), piece("flap", half_round(9), 2),
        rect("tab", 3, 3, 6),
    ]
    for p in several:
        p["cloths"] = ["odd", "fq", "roll"]
    write("several-cloths", several, quarters)
    (HERE / "known.json").write_text(json.dumps(KNOWN, indent=1) + "\n")


if __name__ == "__main__":
    main()
