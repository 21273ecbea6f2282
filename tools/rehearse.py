"""Mixed traffic of many shops through a proxy, and what is lost when a process or the database dies under it. Run by tools/rehearse."""
import argparse
import http.client
import json
import multiprocessing
import os
import random
import signal
import subprocess
import sys
import threading
import time
import uuid

ap = argparse.ArgumentParser()
for name in ["front", "shops", "seconds", "replica-port", "primary-port"]:
    ap.add_argument(f"--{name}", type=int, required=True)
ap.add_argument("--ports", type=int, nargs="+", required=True)
ap.add_argument("--pids", type=int, nargs="+", required=True)
for name in ["primary", "replica", "pg-ctl", "pg-user", "bouncer", "bouncer-pid", "nginx-conf", "nginx-pid"]:
    ap.add_argument(f"--{name}", required=True)
args = ap.parse_args()
HANDS = 24


class Hand:
    """Somebody of a shop at a screen: signed in, asks over one connection."""

    def __init__(self, n):
        self.shop = n
        self.address = f"10.{n >> 16 & 255}.{n >> 8 & 255}.{n & 255}"
        self.cookie = self.csrf = ""
        self.line = None
        status, s = self.ask("POST", "/api/v1/session/passphrase", {"login": f"shop{n}", "passphrase": "gravel over the north gate"}, str(uuid.uuid4()))
        if status != 200 or not s.get("session"):
            sys.exit(f"shop{n} is not let in: {status} {s}")
        self.csrf = s["session"]["csrf"]
        _, jobs = self.ask("GET", "/api/v1/jobs?limit=50")
        self.jobs = [j["job"]["id"] for j in jobs]
        self.plans = [p for p in (j.get("plan_id") or j["job"].get("plan_id") for j in jobs) if p]
        _, t = self.ask("GET", f"/api/v1/jobs/{self.jobs[0]}")
        self.facts = t["vehicle"]["facts"]

    def ask(self, method, path, body=None, key=None, limit=40):
        head = {"content-type": "application/json", "cookie": self.cookie, "host": "shop.example", "x-csrf-token": self.csrf,
                "x-rehearsed-from": self.address}
        if key:
            head["idempotency-key"] = key
        try:
            if self.line is None:
                self.line = http.client.HTTPConnection("127.0.0.1", args.front, timeout=limit)
            self.line.request(method, path, None if body is None else json.dumps(body), head)
            a = self.line.getresponse()
            for k, v in a.getheaders():
                if k.lower() == "set-cookie":
                    self.cookie = v.split(";")[0]
            data = a.read()
            return a.status, json.loads(data or b"null")
        except (OSError, ValueError, http.client.HTTPException):
            self.line = None
            return 0, None


def turn(h, rng):
    """One thing somebody does: its name, and what it is."""
    job = rng.choice(h.jobs)
    x = rng.random()
    if x < 0.30:
        return "list", ("GET", "/api/v1/jobs?limit=50", None)
    if x < 0.65:
        return "ticket", ("GET", f"/api/v1/jobs/{job}", None)
    if x < 0.75:
        own = str(uuid.uuid4())
        return "reading", ("POST", f"/api/v1/jobs/{job}/readings", {
            "id": own, "visit": "found", "axle": "front", "side": "left", "method": "height-hub",
            "entries": [{"name": "value", "text": str(rng.randint(480, 520))}], "unit": "mm"})
    if x < 0.80:
        return "arrive", ("POST", "/api/v1/jobs", {"vehicle": h.facts, "job": {"complaint": uuid.uuid4().hex}})
    if x < 0.90:
        return "search", ("GET", "/api/v1/jobs?find=wander", None)
    return "sheet", ("GET", f"/api/v1/plans/{rng.choice(h.plans)}/sheet", None)


def drive(first, n, seconds, out, until_told=None):
    """A process of hands: times by kind, what was confirmed, what was refused."""
    hands = [Hand(first + i) for i in range(n)]
    out.put("ready")
    times, kept, refused = [], [], {}
    lock = threading.Lock()
    go = out_go.wait()
    assert go is not False
    end = time.monotonic() + seconds

    def work(h):
        rng = random.Random(h.shop)
        while time.monotonic() < end:
            kind, (method, path, body) = turn(h, rng)
            key = str(uuid.uuid4()) if method == "POST" else None
            began = time.monotonic()
            while True:
                status, _ = h.ask(method, path, body, key)
                if status in (200, 201) or (status not in (0, 502, 503, 504) and status < 500):
                    break
                with lock:
                    refused[f"{kind} {status}"] = refused.get(f"{kind} {status}", 0) + 1
                time.sleep(0.1)
            took = time.monotonic() - began
            with lock:
                times.append((kind, took, time.time()))
                if status == 201 and kind == "reading":
                    kept.append(("reading", body["id"]))
                elif status == 201 and kind == "arrive":
                    kept.append(("job", body["job"]["complaint"]))
                elif status not in (200, 201):
                    refused[f"{kind} {status}"] = refused.get(f"{kind} {status}", 0) + 1

    threads = [threading.Thread(target=work, args=(h,)) for h in hands]
    for t in threads:
        t.start()
    for t in threads:
        t.join()
    out.put((times, kept, refused))


out_go = multiprocessing.Event()


def traffic(seconds, during=None):
    out = multiprocessing.Queue()
    out_go.clear()
    rng = random.Random(seconds)
    starts = rng.sample(range(1, max(2, args.shops - HANDS)), 2)
    procs = [multiprocessing.Process(target=drive, args=(s, HANDS // 2, seconds, out)) for s in starts]
    for p in procs:
        p.start()
    for _ in procs:
        out.get(timeout=120)
    out_go.set()
    told = during() if during else None
    times, kept, refused = [], [], {}
    for _ in procs:
        t, k, r = out.get()
        times += t
        kept += k
        for name, n in r.items():
            refused[name] = refused.get(name, 0) + n
    for p in procs:
        p.join()
    return times, kept, refused, told


def said(name, times, refused, seconds):
    print(f"{name}: {len(times) / seconds:.0f} answers a second; refused meanwhile {refused or 'none'}")
    for kind in sorted({k for k, *_ in times}):
        ms = sorted(t * 1000 for k, t, _ in times if k == kind)
        at = lambda q: ms[min(len(ms) - 1, int(q * len(ms)))]
        print(f"    {kind:8} n {len(ms):6}  p50 {at(.5):6.0f}  p95 {at(.95):6.0f}  p99 {at(.99):6.0f} ms", flush=True)


def upstream(ports):
    """Tells the proxy which processes there are."""
    text = open(args.nginx_conf, encoding="utf-8").read()
    begin = text.index("upstream bold_stance {")
    end = text.index("keepalive", begin)
    servers = "".join(f"server 127.0.0.1:{p} max_fails=1 fail_timeout=2s; " for p in ports)
    with open(args.nginx_conf, "w", encoding="utf-8") as f:
        f.write(text[:begin] + "upstream bold_stance { " + servers + text[end:])
    os.kill(int(open(args.nginx_pid, encoding="ascii").read()), signal.SIGHUP)
    time.sleep(1)


def psql(url, sql):
    return subprocess.run(["psql", url, "-qtAc", sql], capture_output=True, text=True, check=True).stdout.strip()


def lost(url, kept):
    there = {}
    for sql in ["select id from reading where taken_at > now() - interval '2 hours'", "select complaint from job"]:
        for line in psql(url, sql).splitlines():
            there[line] = there.get(line, 0) + 1
    return sum(w not in there for _, w in kept), sum(there.get(w, 0) > 1 for _, w in kept)


def memory(pid):
    return next(int(line.split()[1]) // 1024 for line in open(f"/proc/{pid}/status", encoding="ascii") if line.startswith("VmRSS"))


for _ in range(200):
    try:
        if http.client.HTTPConnection("127.0.0.1", args.ports[-1], timeout=2).connect() is None:
            break
    except OSError:
        time.sleep(0.1)
owner, replica = os.environ["OWNER_DATABASE_URL"], os.environ["REPLICA_OWNER_URL"]
confirmed = []
for n in range(1, len(args.ports) + 1):
    upstream(args.ports[:n])
    times, kept, refused, _ = traffic(args.seconds)
    confirmed += kept
    said(f"{n} of {len(args.ports)} processes", times, refused, args.seconds)
print("memory of the processes, MB:", [memory(p) for p in args.pids])


def kill_one():
    time.sleep(args.seconds / 2)
    os.kill(args.pids[0], signal.SIGKILL)
    return time.time()


times, kept, refused, when = traffic(args.seconds, kill_one)
confirmed += kept
gap = max((b - a for a, b in zip(*(lambda t: (t, t[1:]))(sorted(t for *_, t in times if t > when - 1)))), default=0)
said("a process killed half way", times, refused, args.seconds)
print(f"    longest time without any answer {gap:.2f} s; slowest answer {max(t for _, t, _ in times):.2f} s")


def pg(*command):
    who = ["runuser", "-u", args.pg_user, "--"] if args.pg_user else []
    subprocess.run([*who, *command], check=True, stdout=subprocess.DEVNULL)


def take_over():
    time.sleep(args.seconds / 2)
    with open(f"{args.primary}/postmaster.pid", encoding="ascii") as f:
        first = int(f.readline())
    family = subprocess.run(["ps", "-o", "pid=", "--ppid", str(first)], capture_output=True, text=True, check=False).stdout.split()
    for p in [first, *map(int, family)]:
        try:
            os.kill(p, signal.SIGKILL)
        except ProcessLookupError:
            pass
    when = time.time()
    pg(args.pg_ctl, "-D", args.replica, "-w", "promote")
    promoted = time.time() - when
    text = open(args.bouncer, encoding="utf-8").read()
    with open(args.bouncer, "w", encoding="utf-8") as f:
        f.write(text.replace(f"port={args.primary_port}", f"port={args.replica_port}"))
    os.kill(int(open(args.bouncer_pid, encoding="ascii").read()), signal.SIGHUP)
    return when, promoted


times, kept, refused, (when, promoted) = traffic(args.seconds + 10, take_over)
confirmed += kept
# What was asked before it died may have been confirmed already: only what began after it counts.
writes = sorted((t, t - took) for k, took, t in times if k in ("reading", "arrive"))
back = min((t - when for t, began in writes if began > when), default=0)
pause = max((b[0] - a[0] for a, b in zip(writes, writes[1:]) if b[0] > when), default=0)
said("the database killed half way, the replica promoted", times, refused, args.seconds + 10)
print(f"    promoted after {promoted:.2f} s; the first write that began after it confirmed after {back:.2f} s; longest time without a confirmed write {pause:.2f} s")
gone, twice = lost(replica, confirmed)
print(f"{len(confirmed)} confirmed writes over all of it: {gone} lost, {twice} twice")
sys.exit(1 if gone or twice else 0)
