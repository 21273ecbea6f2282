"""The tread's integrals done with scipy's adaptive quadrature instead of strips, and the brush tyre from its bristles.
Shares nothing with the program.

    python reference/tread.py            writes results/brush.csv and results/tread.csv anew
    python reference/tread.py --check    exits 1 when they differ from what is committed

Units: N, m, kPa, rad inside; degrees in the tables. eta runs from -1 at the inner edge to +1 at the outer one.
"""
import csv
import io
import math
import sys
from pathlib import Path

import numpy as np
from scipy.integrate import quad
from scipy.optimize import brentq

HERE = Path(__file__).parent / "results"
CLASSES = {"long_life": 0.15, "all_season": 0.16, "soft_summer": 0.19, "all_terrain": 0.13}
# share, lateral g, longitudinal g, wheel steer in degrees
USES = {
    "highway": [(.855, 0, .022, 0), (.105, .06, .022, 1), (.020, .18, .02, 3), (.004, .15, .02, 15),
                (.008, 0, .12, 0), (.008, 0, -.15, 0)],
    "mixed": [(.700, 0, .020, 0), (.180, .08, .02, 1), (.050, .20, .02, 3), (.015, .15, .02, 15),
              (.028, 0, .12, 0), (.027, 0, -.15, 0)],
    "corner_heavy": [(.540, 0, .020, 0), (.270, .10, .02, 1), (.110, .25, .02, 3), (.030, .17, .02, 15),
                     (.025, 0, .15, 0), (.025, 0, -.18, 0)],
    "trail": [(.600, 0, .050, 0), (.180, .08, .05, 2), (.060, .18, .05, 5), (.080, .12, .05, 20),
              (.040, 0, .12, 0), (.040, 0, -.12, 0)],
}
MU, KAPPA, SPIN, K_F, B_P, N, E0 = 0.95, 1.8, 0.25, 1.0, 1.0, 1.15, 10.0
FREE = math.radians(0.30)


def integral(f, kinks=()):
    at = sorted(k for k in kinks if -1 < k < 1)
    return quad(f, -1, 1, points=at or None, epsabs=1e-12, epsrel=1e-10, limit=400)[0]


def bristles(c, mu, s):
    """Force over load of a brush tyre with a parabolic pressure: each bristle holds until friction lets it go.
    Contact from 0 to 2; pressure 3/4 x (2 - x) has mean load 1; bristle stiffness c/2 gives slip stiffness c."""
    slides = 2 - 2 * c * s / (3 * mu)
    held = quad(lambda x: 0.5 * c * s * x, 0, max(0.0, slides))[0]
    slid = quad(lambda x: mu * 0.75 * x * (2 - x), max(0.0, slides), 2)[0]
    return held + slid


def force(c, s):
    q = min(c * s / (3 * MU), 1)
    return MU * (3 * q - 3 * q * q + q ** 3)


def slip_for(c, d):
    """Slip at which the brush gives force d, below nine tenths of the friction."""
    d = min(d, 0.9 * MU)
    return 0.0 if d <= 0 else brentq(lambda s: force(c, s) - d, 0, 3 * MU / c, xtol=1e-15, rtol=1e-14)


def wheel(t):
    od = 0.0254 * t["rim_in"] + 2 * t["section_mm"] * t["aspect"] * 1e-5
    width = 1e-3 * t["section_mm"] * (1.03 - 0.0035 * t["aspect"])
    kz = lambda p: 9806.65 * (0.00028 * p * math.sqrt((1.03 - 0.004 * t["aspect"]) * t["section_mm"] * 1000 * od) + 3.45)
    c = math.degrees(CLASSES[t["class"]])
    sunk = t["load_n"] / kz(t["pressure_kpa"])
    x = min(max(sunk / (t["load_n"] / kz(t["placard_kpa"])) - 1, -0.6), 1.0)
    radius = od / 2 - sunk
    flat = max(0.004, od / 2 - radius)
    damage = energy = lateral = 0.0
    for share, ay, ax, steer in USES[t["use"]]:
        event = abs(ax) >= 0.1
        if ax > 0:
            dx = ax * (t["torque_factor"] if event else 1) * t["drive_share"] / t["axle_share"]
        elif t["regen"]:
            dx = ax * (0.5 * t["brake_share"] + 0.5 * t["drive_share"]) / t["axle_share"]
        else:
            dx = ax * t["brake_share"] / t["axle_share"]
        demand = math.hypot(dx, ay)
        s0 = slip_for(c, demand)
        lean = min(max(t["load_transfer_per_g"] * ay, -0.9), 0.9)
        sides = (1, -1) if ay > 0 else (1,)
        for side in sides:
            ux, uy = (dx / demand, side * ay / demand) if demand else (0, 0)
            g = math.radians(t["camber_deg"] + side * (t["roll_camber_deg_per_g"] * ay
                                                       - t["caster_deg"] * math.sin(math.radians(steer))))
            sx0 = s0 * ux
            sy = s0 * uy + math.radians(t["toe_deg"]) * (1 - side * lean)
            sm = math.sqrt(sx0 ** 2 + sy ** 2 + FREE ** 2)
            tau = KAPPA * (width / 2) * math.tan(g) / flat + K_F * force(c, sm) * sy / sm
            raw = lambda e: 1 + B_P * x * (3 * e * e - 1) / 2 + tau * e
            kinks = np.roots([1.5 * B_P * x, tau, 1 - 0.5 * B_P * x])
            kinks = [float(k.real) for k in kinks if abs(k.imag) < 1e-12]
            load = lambda e: max(0.0, raw(e))
            scale = 2 / integral(load, kinks)
            centre = scale * integral(lambda e: load(e) * e, kinks) / 2

            def pass_energy(e):
                sx = sx0 - SPIN * math.sin(g) * (width / 2) * (e - centre) / radius
                s = math.sqrt(sx * sx + sy * sy + FREE ** 2)
                return t["load_n"] / width * (1 + side * lean) * scale * load(e) * force(c, s) * s, s

            w = share / len(sides) * (1.5 if t["use"] == "trail" else 1)
            damage += w * integral(lambda e: (pass_energy(e)[0] / E0) ** N, kinks) / 2
            w = share / len(sides)
            energy += w * integral(lambda e: pass_energy(e)[0], kinks) / 2
            lateral += w * integral(lambda e: (lambda p: p[0] * sy * abs(sy) / p[1] ** 2)(pass_energy(e)), kinks) / 2
    passes = 1e6 / (2 * math.pi * radius)
    return {"radius_m": radius, "mean_rate": damage * passes, "energy_j_m2": energy, "feather": lateral / energy}


def treads():
    rng = np.random.default_rng(20261127)
    for i in range(48):
        load = float(rng.uniform(2800, 7000))
        placard = float(rng.uniform(190, 300))
        t = {
            "section_mm": float(rng.choice([195, 215, 235, 255, 285])), "aspect": float(rng.choice([40, 50, 60, 70])),
            "rim_in": float(rng.choice([16, 17, 18, 19])), "class": str(rng.choice(list(CLASSES))),
            "use": list(USES)[i % 4], "load_n": load, "placard_kpa": placard,
            "pressure_kpa": placard * float(rng.uniform(0.75, 1.15)), "axle_share": float(rng.uniform(0.42, 0.6)),
            "drive_share": float(rng.choice([0, 0.5, 1])), "brake_share": float(rng.uniform(0.3, 0.7)),
            "torque_factor": float(rng.choice([1, 1.5])), "regen": bool(rng.integers(2)),
            "load_transfer_per_g": float(rng.uniform(0.5, 0.9)), "roll_camber_deg_per_g": float(rng.uniform(0, 3)),
            "caster_deg": float(rng.choice([0, 3, 6])), "camber_deg": float(rng.uniform(-4, 2)),
            "toe_deg": float(rng.uniform(-0.6, 0.6)),
        }
        yield t | wheel(t)


def brushes():
    for c in (7.4, 9.2, 10.9):
        for mu in (0.7, 0.95, 1.1):
            for s in (1e-6, 1e-3, 0.01, 0.03, 0.08, 0.15, 0.3, 1.0):
                yield {"c": c, "mu": mu, "slip": s, "force": bristles(c, mu, s)}


def table(rows):
    rows = list(rows)
    out = io.StringIO()
    w = csv.DictWriter(out, rows[0].keys(), lineterminator="\n")
    w.writeheader()
    for r in rows:
        w.writerow({k: f"{v:.10g}" if isinstance(v, float) else (str(v).lower() if isinstance(v, bool) else v)
                    for k, v in r.items()})
    return out.getvalue()


def same(a, b):
    if a == b:
        return True
    try:
        return abs(float(a) - float(b)) <= 1e-7 * max(1e-30, abs(float(b)))
    except ValueError:
        return False


def main():
    check = "--check" in sys.argv[1:]
    bad = False
    for name, rows in (("brush.csv", brushes()), ("tread.csv", treads())):
        text, path = table(rows), HERE / name
        if check:
            old = [l.split(",") for l in path.read_text().split("\n")]
            new = [l.split(",") for l in text.split("\n")]
            ok = len(old) == len(new) and all(
                len(x) == len(y) and all(map(same, x, y)) for x, y in zip(new, old))
            print(name, "agrees" if ok else "DIFFERS")
            bad |= not ok
        else:
            path.write_text(text)
            print("wrote", path)
    return 1 if bad else 0


if __name__ == "__main__":
    sys.exit(main())
