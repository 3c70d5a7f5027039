"""Bofta against general-purpose packers from PyPI on the jobs of bench/jobs, in one run.

    pip install rectpack ortools spyrrow
    cargo build -p bofta
    python bench/peers.py [--ours 5] [--peers 10] [--exact 60] [--only PREFIX,PREFIX] [--markdown FILE]

`rectpack` 0.2.2 packs rectangles, free and by guillotine cuts; `ortools` (CP-SAT) proves small ones by an exact model;
`spyrrow` nests shapes. Every packer gets the same roll, the same turns and its own seconds; lengths are of the
lay, before shop steps. A ratio below 1 means Bofta's lay is shorter. `proven` is said of the same job sold in steps of
an eighth of a yard, since that is what is bought. The peers know nothing of grounds of several
cloths, scraps or folds: of those jobs Bofta's own result is shown.
"""

import argparse
import itertools
import json
import math
import subprocess
import tempfile
import time
from pathlib import Path

ROOT = Path(__file__).parent.parent
JOBS = Path(__file__).parent / "jobs"
EIGHTH = 1 / 64


def turns(piece):
    return {"length": [0, 180], "across": [90, 270]}.get(piece.get("grain", "length"), [0, 90, 180, 270])


def corners(outline):
    if "rect" in outline:
        w, h = outline["rect"]
        return [(0, 0), (w, 0), (w, h), (0, h)]
    if "circle" in outline:
        r = outline["circle"] / 2
        return [(r + r * math.cos(i * math.tau / 64), r + r * math.sin(i * math.tau / 64)) for i in range(64)]
    return [tuple(c) for c in outline["polygon"]]


def ours(path, seconds):
    with tempfile.NamedTemporaryFile(suffix=".json") as out:
        start = time.time()
        run = subprocess.run(
            [ROOT / "target/debug/bofta", "lay", path, "-o", out.name, "--seconds", str(seconds)],
            capture_output=True, text=True,
        )
        took = time.time() - start
        if run.returncode == 2:
            raise SystemExit(run.stderr)
        check = subprocess.run([ROOT / "target/debug/bofta", "check", path, out.name], capture_output=True, text=True)
        if check.returncode:
            raise SystemExit(f"{path.name}: {check.stdout}")
        return json.loads(Path(out.name).read_text()), took


def proven_in_steps(job, seconds):
    """Whether Bofta proves its purchase the least where the shop sells eighths of a yard."""
    stepped = json.loads(json.dumps(job))
    for cloth in stepped["cloths"]:
        if cloth["kind"] == "roll":
            cloth["step"] = 4.5
    with tempfile.NamedTemporaryFile("w", suffix=".json") as file:
        json.dump(stepped, file)
        file.flush()
        return ours(Path(file.name), seconds)[0]["proven"]


def rectangles(job):
    found = []
    for p in job["pieces"]:
        w, h = p["outline"]["rect"]
        found += [(round(w / EIGHTH), round(h / EIGHTH), len(turns(p)) == 4 and w != h)] * p["count"]
    return found


def by_rectpack(job, seconds, guillotine):
    import rectpack

    pieces = rectangles(job)
    width = round(job["cloths"][0]["width"] / EIGHTH)
    names = [n for n in dir(rectpack) if n.startswith("Guillotine" if guillotine else ("MaxRects", "Skyline"))]
    algorithms = [getattr(rectpack, n) for n in names if isinstance(getattr(rectpack, n), type)]
    sorts = [rectpack.SORT_AREA, rectpack.SORT_PERI, rectpack.SORT_DIFF, rectpack.SORT_SSIDE, rectpack.SORT_LSIDE, rectpack.SORT_RATIO, rectpack.SORT_NONE]
    # It turns all or none: pieces that may not turn are packed as they stand, and then none turns.
    rotations = [True, False] if all(t for *_, t in pieces) else [False]
    least = math.ceil(sum(w * h for w, h, _ in pieces) / width)
    most = sum(max(w, h) for w, h, _ in pieces)
    best = most
    stop = time.time() + seconds

    def fits(algorithm, sort, rotation, height):
        packer = rectpack.newPacker(pack_algo=algorithm, sort_algo=sort, rotation=rotation)
        for w, h, _ in pieces:
            packer.add_rect(w, h)
        packer.add_bin(width, height)
        packer.pack()
        if len(packer.rect_list()) < len(pieces):
            return None
        return max(y + h for _, _, y, _, h, _ in packer.rect_list())

    # It has no open end: heights are tried by halving, for each way of packing, as long as there is time.
    for algorithm, sort, rotation in itertools.product(algorithms, sorts, rotations):
        low, high = least, best - 1
        while low <= high and time.time() < stop:
            middle = (low + high) // 2
            top = fits(algorithm, sort, rotation, middle)
            if top is None:
                low = middle + 1
            else:
                best = min(best, top)
                high = top - 1
        if time.time() >= stop:
            break
    return best * EIGHTH


def by_cp_sat(job, seconds):
    from ortools.sat.python import cp_model

    pieces = rectangles(job)
    width = round(job["cloths"][0]["width"] / EIGHTH)
    step = math.gcd(*[v for w, h, _ in pieces for v in (w, h)])
    width, pieces = width // step, [(w // step, h // step, t) for w, h, t in pieces]
    if len(pieces) > 70:
        return None, False
    top = sum(max(w, h) for w, h, _ in pieces)
    model = cp_model.CpModel()
    height = model.new_int_var(0, top, "height")
    across, along = [], []
    for i, (w, h, may_turn) in enumerate(pieces):
        turned = model.new_bool_var(f"t{i}") if may_turn else 0
        wide = model.new_int_var(min(w, h), max(w, h), f"w{i}")
        tall = model.new_int_var(min(w, h), max(w, h), f"h{i}")
        model.add(wide == w + (h - w) * turned)
        model.add(tall == h + (w - h) * turned)
        x, y = model.new_int_var(0, width, f"x{i}"), model.new_int_var(0, top, f"y{i}")
        x2, y2 = model.new_int_var(0, width, f"x2{i}"), model.new_int_var(0, top, f"y2{i}")
        across.append(model.new_interval_var(x, wide, x2, f"a{i}"))
        along.append(model.new_interval_var(y, tall, y2, f"l{i}"))
        model.add(y2 <= height)
    model.add_no_overlap_2d(across, along)
    model.add_cumulative(across, [i.size_expr() for i in along], height)
    model.add_cumulative(along, [i.size_expr() for i in across], width)
    model.minimize(height)
    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds = seconds
    solver.parameters.num_workers = 2
    status = solver.solve(model)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None, False
    return round(solver.objective_value) * step * EIGHTH, status == cp_model.OPTIMAL


def by_spyrrow(job, seconds):
    import spyrrow

    items = []
    for p in job["pieces"]:
        shape = corners(p["outline"])
        # Its strip has a fixed height and grows to the right: turned by a quarter, our roll.
        shape = [(y, -x) for x, y in shape]
        allowed = [float(t) for t in ([0] if "circle" in p["outline"] else turns(p))]
        copies = [(p["count"], shape)]
        if p.get("mirror") == "pairs":
            flipped = [(x, -y) for x, y in reversed(shape)]
            copies = [((p["count"] + 1) // 2, shape), (p["count"] // 2, flipped)]
        for n, (count, outline) in enumerate(copies):
            if count:
                items.append(spyrrow.Item(f"{p['id']}{n}", outline + outline[:1], demand=count, allowed_orientations=allowed))
    cloth = job["cloths"][0]
    instance = spyrrow.StripPackingInstance("job", strip_height=float(cloth["width"]), items=items)
    config = spyrrow.StripPackingConfig(total_computation_time=max(1, int(seconds)), seed=1, num_workers=2)
    return instance.solve(config).width


def main():
    ask = argparse.ArgumentParser()
    ask.add_argument("--ours", type=float, default=5)
    ask.add_argument("--peers", type=float, default=10)
    ask.add_argument("--exact", type=float, default=60)
    ask.add_argument("--only", default="")
    ask.add_argument("--markdown")
    given = ask.parse_args()
    known = json.loads((JOBS / "known.json").read_text())
    rows = [["job", "pieces", "Bofta", "proven", "known", "rectpack", "CP-SAT", "spyrrow", "ratio to best peer"]]
    print("  ".join(f"{c:>12}" for c in rows[0]), flush=True)
    for path in sorted(JOBS.glob("*.json")):
        name = path.stem
        if name == "known" or not any(name.startswith(o) for o in given.only.split(",")):
            continue
        job = json.loads(path.read_text())
        lay, took = ours(path, given.ours)
        kind = name.split("-")[0]
        peers = {}
        if kind in ("rect", "cut", "halves"):
            peers["rectpack"] = by_rectpack(job, given.peers, False)
            if given.exact:
                length, optimal = by_cp_sat(job, given.exact)
                if length is not None:
                    peers["CP-SAT"] = length
        elif kind == "through":
            peers["rectpack"] = by_rectpack(job, given.peers, True)
        elif kind in ("shape", "mix", "tiles"):
            peers["spyrrow"] = by_spyrrow(job, given.peers)
        mine = sum(c["needed_length"] for c in lay["cloths"] if c["id"] == "roll")
        left = sum(u["count"] for u in lay["unplaced"])
        count = sum(p["count"] for p in job["pieces"])
        shown = lambda v: "" if v is None else f"{v:.3f}"
        best = min(peers.values(), default=None)
        rows.append([
            name, str(count), shown(mine) + (f" ({left} left)" if left else ""), "yes" if proven_in_steps(job, given.ours) else "no",
            shown(known.get(name)), shown(peers.get("rectpack")), shown(peers.get("CP-SAT")), shown(peers.get("spyrrow")),
            "" if not best else f"{mine / best:.4f}",
        ])
        print("  ".join(f"{c:>12}" for c in rows[-1]), f"  {took:.1f} s", flush=True)
    if given.markdown:
        lines = ["| " + " | ".join(r) + " |" for r in rows]
        lines.insert(1, "|" + "---|" * len(rows[0]))
        Path(given.markdown).write_text("\n".join(lines) + "\n")


if __name__ == "__main__":
    main()
