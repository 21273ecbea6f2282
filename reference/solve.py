"""Independent positions for the project's own geometries.

    python3 -m venv .venv && .venv/bin/pip install -r reference/requirements.txt
    .venv/bin/python reference/solve.py            # writes reference/results/*.csv
    .venv/bin/python reference/solve.py --check    # exits 1 when they differ from what is committed

Nothing here is shared with the program: each layout is written down as its constraint equations (rigid
bodies as a point and a rotation vector, every link a distance, every ball joint a coincidence) and handed to
a general nonlinear solver (scipy.optimize.root, hybr; scipy.optimize.least_squares for the solid axle),
warm-started from the neighbouring travel. Definitions of the quantities are those of docs/ARCHITECTURE.md:
ISO 8855 axes, left wheel.
"""
import csv
import io
import json
import pathlib
import sys

import numpy as np
from scipy.optimize import least_squares, root
from scipy.spatial.transform import Rotation

HERE = pathlib.Path(__file__).parent
TRAVELS = [float(t) for t in range(-90, 81, 10)]
RACKS = [-40.0, -20.0, 20.0, 40.0]
COLUMNS = ["travel_mm", "rack_mm", "camber_deg", "toe_deg", "caster_deg", "sai_deg", "half_track_mm", "wheel_x_mm",
           "scrub_radius_mm", "mechanical_trail_mm"]
AXLE_COLUMNS = ["heave_mm", "lateral_shift_mm", "caster_deg", "pitch_change_deg", "wheel_x_mm", "roll_deg"]


def spin_axis(camber, toe):
    # Camber tips the outboard axis down, toe-in swings it forward.
    c, t = np.radians([camber, toe])
    return np.array([np.cos(c) * np.sin(t), np.cos(c) * np.cos(t), -np.sin(c)])


def contact(centre, spin, radius):
    up = np.array([0.0, 0.0, 1.0]) - spin * spin[2]
    return centre - radius * up / np.linalg.norm(up)


def measure(g, travel, rack, centre, spin, axis):
    """Row of the table; axis is (point, point) or None."""
    w = g["wheel"]
    foot = contact(centre, spin, w["loaded_radius_mm"])
    row = [travel, rack, -np.degrees(np.arcsin(spin[2])), np.degrees(np.arctan2(spin[0], spin[1]))]
    if axis is None:
        return row + [None, None, foot[1], centre[0] - w["center"][0], None, None]
    low, high = axis
    u = high - low
    ground = low + u * (foot[2] - low[2]) / u[2]
    out = np.array([spin[0], spin[1], 0.0]) / np.hypot(spin[0], spin[1])
    heading = np.array([out[1], -out[0], 0.0])
    d = foot - ground
    return row + [np.degrees(np.arctan2(-u[0], u[2])), np.degrees(np.arctan2(-u[1], u[2])), foot[1],
                  centre[0] - w["center"][0], d @ out, -(d @ heading)]


class Body:
    """A rigid body: design reference point and rotation vector."""

    def __init__(self, at):
        self.at = np.array(at, float)

    def place(self, q, p):
        return q[:3] + Rotation.from_rotvec(q[3:6]).apply(np.array(p) - self.at)


def solve(equations, start):
    s = root(equations, start, method="hybr", tol=1e-13, options={"maxfev": 4000})
    if not s.success and np.max(np.abs(s.fun)) > 1e-8:
        raise ValueError(s.message)
    return s.x


def corner_constraints(g):
    """equations(q, travel, rack) of a knuckle, its body, and axis(q, travel, rack)."""
    w, kind = g["wheel"], g["layout"]
    knuckle = Body(w["center"])
    dist = lambda a, b: np.linalg.norm(np.array(a) - np.array(b))
    if kind == "five_link":
        links = sorted(g["links"].items())
        length = {n: dist(l["inner"], l["outer"]) for n, l in links}

        def inner(n, l, rack):
            return np.array(l["inner"]) + np.array([0, rack if n == "tie" else 0.0, 0])

        def equations(q, travel, rack):
            out = [q[2] - w["center"][2] - travel]
            out += [dist(knuckle.place(q, l["outer"]), inner(n, l, rack)) - length[n] for n, l in links]
            return out

        def axis(q, travel, rack):
            if "tie" not in g["links"]:
                return None
            # Instantaneous screw axis of rack motion, by finite differences of the solved pose.
            h = 1e-3
            a = solve(lambda x: equations(x, travel, rack - h), q)
            b = solve(lambda x: equations(x, travel, rack + h), q)
            turn = (Rotation.from_rotvec(b[3:6]) * Rotation.from_rotvec(a[3:6]).inv()).as_rotvec() / (2 * h)
            v = (b[:3] - a[:3]) / (2 * h)
            near = q[:3] + np.cross(turn, v) / (turn @ turn)
            up = turn / np.linalg.norm(turn) * np.sign(turn[2])
            return near - 100 * up, near + 100 * up

        return knuckle, equations, axis
    p = g["points"]
    arm_lengths = [(p["lower_" + e], p["lower_outer"], dist(p["lower_" + e], p["lower_outer"])) for e in ("front", "rear")]
    if kind == "double_wishbone":
        arm_lengths += [(p["upper_" + e], p["upper_outer"], dist(p["upper_" + e], p["upper_outer"]))
                        for e in ("front", "rear")]
    tie = dist(p["tie_inner"], p["tie_outer"])

    def equations(q, travel, rack):
        out = [q[2] - w["center"][2] - travel]
        out += [dist(knuckle.place(q, joint), pivot) - length for pivot, joint, length in arm_lengths]
        out.append(dist(knuckle.place(q, p["tie_outer"]), np.array(p["tie_inner"]) + [0, rack, 0]) - tie)
        if kind == "strut":
            # The mount lies on the knuckle's line through strut_bottom along the design strut.
            line = np.array(p["strut_top"]) - np.array(p["strut_bottom"])
            d = Rotation.from_rotvec(q[3:6]).apply(line / np.linalg.norm(line))
            off = np.array(p["strut_top"]) - knuckle.place(q, p["strut_bottom"])
            side = np.cross(d, [1.0, 0, 0])
            side /= np.linalg.norm(side)
            out += [off @ side, off @ np.cross(d, side)]
        return out

    def axis(q, travel, rack):
        upper = np.array(p["strut_top"]) if kind == "strut" else knuckle.place(q, p["upper_outer"])
        return knuckle.place(q, p["lower_outer"]), upper

    return knuckle, equations, axis


def hinge_rows(g):
    """One rotation about the hinge, its angle by root finding on the wheel height."""
    w = g["wheel"]
    names = ("arm_inner", "arm_outer") if g["layout"] == "single_arm" else ("pivot_right", "pivot_left")
    a, b = (np.array(g["points"][n], float) for n in names)
    u = (b - a) / np.linalg.norm(b - a)
    centre, spin = np.array(w["center"], float), spin_axis(w["camber_deg"], w["toe_deg"])
    angle = 0.0
    rows = {}
    for t in sorted(TRAVELS, key=abs):
        start = 0.0 if t == 0 else rows.get(t - 10 * np.sign(t), (0.0,))[0]
        angle = solve(lambda x: [(a + Rotation.from_rotvec(u * x[0]).apply(centre - a))[2] - w["center"][2] - t], [start])[0]
        r = Rotation.from_rotvec(u * angle)
        rows[t] = (angle, measure(g, t, 0.0, a + r.apply(centre - a), r.apply(spin), None))
    return [rows[t][1] for t in TRAVELS]


def axle_rows(g):
    """Solid axle: least squares on the link lengths at given heave, roll 0."""
    w = g["wheel"]
    mid = np.array([w["center"][0], 0.0, w["center"][2]])
    body = Body(mid)
    links = [l for n, l in sorted(g["links"].items())]
    length = [np.linalg.norm(np.subtract(l["chassis"], l["axle"])) for l in links]
    s = g.get("steering_axis")

    def turn(pitch, yaw):
        return Rotation.from_rotvec([0, 0, yaw]) * Rotation.from_rotvec([0, pitch, 0])

    def misfit(v, heave):
        q = np.concatenate([mid + [v[0], v[1], heave], turn(v[2], v[3]).as_rotvec()])
        return [np.linalg.norm(body.place(q, l["axle"]) - l["chassis"]) - n for l, n in zip(links, length)]

    rows, found = {}, {}
    for h in sorted(TRAVELS, key=abs):
        start = np.zeros(4) if h == 0 else found[h - 10 * np.sign(h)]
        v = least_squares(misfit, start, args=(h,), xtol=1e-15, ftol=1e-15, gtol=1e-15, x_scale=[1, 1, 1e-3, 1e-3]).x
        found[h] = v
        caster = None
        if s:
            u = turn(v[2], v[3]).apply([-np.tan(np.radians(s["caster_deg"])), -np.tan(np.radians(s["sai_deg"])), 1.0])
            caster = np.degrees(np.arctan2(-u[0], u[2]))
        rows[h] = [h, v[1], caster, np.degrees(v[2]), v[0], 0.0]
    return [rows[h] for h in TRAVELS]


def corner_rows(g):
    knuckle, equations, axis = corner_constraints(g)
    w = g["wheel"]
    spin = spin_axis(w["camber_deg"], w["toe_deg"])
    found = {}

    def at(travel, rack, start):
        q = solve(lambda x: equations(x, travel, rack), start)
        found[travel, rack] = q
        r = Rotation.from_rotvec(q[3:6])
        return measure(g, travel, rack, q[:3], r.apply(spin), axis(q, travel, rack))

    rows = {}
    design = np.concatenate([np.array(w["center"], float), np.zeros(3)])
    for t in sorted(TRAVELS, key=abs):
        rows[t, 0.0] = at(t, 0.0, design if t == 0 else found[t - 10 * np.sign(t), 0.0])
    steers = g["layout"] != "five_link" or "tie" in g["links"]
    for t in (-50.0, 0.0, 50.0) if steers else ():
        for rack in sorted(RACKS, key=abs):
            near = 0.0 if abs(rack) == 20.0 else rack - 20.0 * np.sign(rack)
            rows[t, rack] = at(t, rack, found[t, near])
    return [rows[k] for k in sorted(rows, key=lambda k: (k[1], k[0]))]


def table(g):
    axle = g["layout"] == "solid_axle"
    rows = axle_rows(g) if axle else hinge_rows(g) if g["layout"] in ("single_arm", "twist_beam") else corner_rows(g)
    out = io.StringIO()
    write = csv.writer(out, lineterminator="\n")
    write.writerow(AXLE_COLUMNS if axle else COLUMNS)
    write.writerows([["" if v is None else f"{v + 0.0:.6f}" for v in r] for r in rows])
    return out.getvalue()


def main():
    differ = []
    for path in sorted((HERE / "geometries").glob("*.json")):
        text = table(json.loads(path.read_text()))
        result = HERE / "results" / (path.stem + ".csv")
        if "--check" in sys.argv:
            old = [[float(c or "nan") for c in l.split(",")] for l in result.read_text().splitlines()[1:]]
            new = [[float(c or "nan") for c in l.split(",")] for l in text.splitlines()[1:]]
            if not np.allclose(old, new, atol=2e-5, rtol=0, equal_nan=True):
                differ.append(path.stem)
        else:
            result.write_text(text)
        print(path.stem, text.count("\n") - 1, "rows")
    if differ:
        print("differ:", ", ".join(differ))
    return 1 if differ else 0


if __name__ == "__main__":
    sys.exit(main())
