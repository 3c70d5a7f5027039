"""How many random jobs that were cut from scraps are laid wholly on them, and after how long.

    python3 bench/scraps.py [program] [--seed N] [--jobs N] [--seconds N]

A job counts when nothing is bought and nothing is left out. The shares are of jobs made anew from the seed, which no
part of the search has seen.
"""

import argparse
import json
import random
import statistics
import subprocess
import tempfile
import time
from pathlib import Path

import jobs

SINGLE = [(12,)]
SEVERAL = [(6, 6), (4, 4, 4), (3, 4, 5)]


def lies_on_scraps(lay):
    return not lay["unplaced"] and not any(c["id"] == "roll" and c["placements"] for c in lay["cloths"])


def measure(options, kind, scraps):
    rng, times = random.Random(f"{options.seed} {kind}"), []
    with tempfile.TemporaryDirectory() as folder:
        for k in range(options.jobs):
            file = Path(folder) / f"{k}.json"
            file.write_text(json.dumps(jobs.job(f"{kind} {k}", *jobs.scrap_puzzle(rng, rng.choice(scraps)))))
            begun = time.monotonic()
            command = [options.program, "lay", str(file), "--seconds", str(options.seconds)]
            lay = json.loads(subprocess.run(command, capture_output=True, check=True).stdout)
            if lies_on_scraps(lay):
                times.append(time.monotonic() - begun)
    middle = f", half of them within {statistics.median(times):.1f} s" if times else ""
    print(f"{kind}: {len(times)} of {options.jobs} lie on their scraps{middle}", flush=True)


def main():
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("program", nargs="?", default="target/debug/bofta")
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--jobs", type=int, default=20)
    parser.add_argument("--seconds", type=int, default=10)
    options = parser.parse_args()
    measure(options, "a single scrap", SINGLE)
    measure(options, "two or three scraps", SEVERAL)


main()
