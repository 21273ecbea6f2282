"""Readings made from wheels that are built in space with scipy's rotations, so that every sign and formula of a
conversion is checked against the thing itself. Shares nothing with the program.

    python reference/readings.py            writes results/readings.csv and results/sweeps.csv anew
    python reference/readings.py --check    exits 1 when they differ from what is committed

Axes: x forward, y left, z up; mm. A left wheel's spin axis points to +y.
"""
import csv
import io
import math
import sys
from pathlib import Path

import numpy as np
from scipy.optimize import brentq
from scipy.spatial.transform import Rotation

HERE = Path(__file__).parent / "results"
Z = np.array([0.0, 0.0, 1.0])


def deg(v):
    return math.radians(v)


def spin(camber, toe):
    """Outboard axis of a left wheel: leaned about x (top out positive), then turned about z (nose in positive)."""
    a = Rotation.from_rotvec([-deg(camber), 0, 0]).apply([0.0, 1.0, 0.0])
    return Rotation.from_rotvec([0, 0, -deg(toe)]).apply(a)


def upward(a):
    """Direction in the wheel's plane that points most nearly up."""
    w = Z - a * np.dot(a, Z)
    return w / np.linalg.norm(w)


def lips(a, centre, radius):
    w = upward(a)
    return centre + radius * w, centre - radius * w


def rows():
    rng = np.random.default_rng(20261123)
    for _ in range(12):
        camber = rng.uniform(-4, 4)
        radius = rng.uniform(190, 270)
        centre = np.array([0.0, 780.0, 350.0])
        top, bottom = lips(spin(camber, 0), centre, radius)
        outside, inside = 1400.0, 200.0
        span = top[2] - bottom[2]
        yield "camber-offsets", {"top": outside - top[1], "bottom": outside - bottom[1], "span": span}, camber
        yield ("camber-offsets", {"top": top[1] - inside, "bottom": bottom[1] - inside, "span": span,
                                  "reference": "inside"}, camber)
        yield "camber-gap", {"top-gap": bottom[1] - top[1], "span": span}, camber
        bulge = rng.uniform(1, 6)
        yield "camber-gap", {"top-gap": bottom[1] + bulge - top[1], "span": span, "bulge": bulge}, camber
        yield "camber-calliper", {"gap": bottom[1] - top[1], "diameter": 2 * radius}, camber
        yield "camber-form", {"offset": top[1] - bottom[1], "diameter": 2 * radius}, camber

    for _ in range(12):
        camber, slope = rng.uniform(-3, 3), rng.uniform(-1, 1)
        # The floor falls to the left: the whole car turns its left side down, about x.
        fall = Rotation.from_rotvec([-deg(slope), 0, 0])
        left = fall.apply(spin(camber, 0))
        mirrored = spin(camber, 0) * [1, -1, 1]
        right = fall.apply(mirrored)
        for side, a in (("left", left), ("right", right)):
            read = -math.degrees(math.asin(a[2]))
            yield "camber-gauge", {"angle": f"{read:.8f}deg", "floor-slope": f"{slope:.8f}deg", "side": side}, camber

    for _ in range(12):
        left, right = rng.uniform(-1, 1, 2)
        radius, track, down = rng.uniform(200, 420), rng.uniform(1400, 1700), rng.uniform(0, 120)
        chord = math.sqrt(radius**2 - down**2)
        ends = {}
        for side, toe in ((1, left), (-1, right)):
            a = spin(0, toe) * [1, side, 1]
            forward = np.cross(a * [1, side, 1], Z) * [1, side, 1]
            centre = np.array([0, side * track / 2, 350.0])
            ends[side] = (centre + chord * forward, centre - chord * forward)
        front = ends[1][0][1] - ends[-1][0][1]
        rear = ends[1][1][1] - ends[-1][1][1]
        yield ("toe-distance", {"front": front, "rear": rear, "diameter": 2 * radius, "height": 350 - down,
                                "axle-height": 350.0}, left + right)
        if down < 5:
            continue
        yield "toe-bars", {"front": front, "rear": rear, "diameter": 2 * chord}, left + right

    for _ in range(12):
        toe, radius = rng.uniform(-1.5, 1.5), rng.uniform(200, 260)
        tf, tr, wb = rng.uniform(1400, 1600), rng.uniform(1400, 1600), rng.uniform(2300, 3400)
        a = spin(0, toe)
        forward = np.cross(a, Z)
        hub = np.array([0, tf / 2, 350.0])
        front, rear = hub + radius * forward, hub - radius * forward
        out = 150.0
        # Parallel to the centre line, outside the car.
        line = lambda x: tf / 2 + out
        yield ("toe-string", {"front-gap": line(front[0]) - front[1], "rear-gap": line(rear[0]) - rear[1],
                              "diameter": 2 * radius, "reference": "outside"}, toe)
        # The same, inboard of the lips.
        inner = lambda x: tf / 2 - out
        yield ("toe-string", {"front-gap": front[1] - inner(front[0]), "rear-gap": rear[1] - inner(rear[0]),
                              "diameter": 2 * radius, "reference": "inside"}, toe)
        # As far from both hubs: it follows the tracks.
        slope = (tr - tf) / 2 / wb
        # A rule held square to the string.
        gap = lambda p: (tf / 2 + out - slope * p[0] - p[1]) * math.cos(math.atan(slope))
        yield ("toe-string", {"front-gap": gap(front), "rear-gap": gap(rear),
                              "diameter": 2 * radius, "reference": "outside", "strung": "rear-wheels",
                              "track-front": tf, "track-rear": tr, "wheelbase": wb}, toe)


def sweeps():
    rng = np.random.default_rng(7)
    for _ in range(60):
        caster, sai = rng.uniform(-1, 12), rng.uniform(4, 17)
        camber, toe = rng.uniform(-4, 3), rng.uniform(-0.5, 0.5)
        k = np.array([-math.tan(deg(caster)), -math.tan(deg(sai)), 1.0])
        k /= np.linalg.norm(k)
        a0 = spin(camber, toe)
        fore = np.cross(a0, Z)
        fore /= np.linalg.norm(fore)
        heading = lambda v: math.degrees(math.atan2(v[0], v[1]))
        for steer in (-rng.uniform(8, 34), rng.uniform(8, 34)):
            turned = lambda phi: Rotation.from_rotvec(phi * k)
            off = lambda phi: heading(turned(phi).apply(a0)) - (toe - steer)
            phi = brentq(off, deg(-60), deg(60), xtol=1e-15, rtol=1e-14)
            a, f = turned(phi).apply(a0), turned(phi).apply(fore)
            yield [caster, sai, camber, toe, steer, -math.degrees(math.asin(a[2])), math.degrees(math.asin(f[2]))]


def text_of_readings():
    out = io.StringIO()
    w = csv.writer(out, lineterminator="\n")
    w.writerow(["method", "entries", "value_deg"])
    for method, entries, value in rows():
        cells = [f"{k}={v}" if isinstance(v, str) else f"{k}={v:.6f}mm" for k, v in entries.items()]
        w.writerow([method, "; ".join(cells), f"{value:.9f}"])
    return out.getvalue()


def text_of_sweeps():
    out = io.StringIO()
    w = csv.writer(out, lineterminator="\n")
    w.writerow(["caster_deg", "sai_deg", "camber_deg", "toe_deg", "steer_deg", "camber_steered_deg", "tilt_steered_deg"])
    for row in sweeps():
        w.writerow([f"{v:.9f}" for v in row])
    return out.getvalue()


def main():
    differs = False
    for name, text in (("readings.csv", text_of_readings()), ("sweeps.csv", text_of_sweeps())):
        path = HERE / name
        if "--check" in sys.argv:
            if path.read_text() != text:
                print(f"{name} differs")
                differs = True
        else:
            path.write_text(text)
    sys.exit(1 if differs else 0)


main()
