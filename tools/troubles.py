"""What goes wrong with a database under a shop that works on: each trouble once, with writes of several hands going on.

Asked of each: the words of every answer, that what needs no database goes on, that it is back by itself, and that every write,
sent again with its key until it is confirmed, is there once. Run by tools/troubles, which brings the database. Exits 1 when
anything was otherwise.
"""
import argparse
import atexit
import contextlib
import json
import os
import signal
import socket
import socketserver
import subprocess
import sys
import threading
import time
import urllib.request
import uuid

import asking

ap = argparse.ArgumentParser()
ap.add_argument("--binary", required=True)
ap.add_argument("--pg-bin", required=True)
ap.add_argument("--data", required=True)
ap.add_argument("--pg-user", required=True, help="whom PostgreSQL runs as; empty: who runs this")
ap.add_argument("--pg-options", required=True)
ap.add_argument("--clock", required=True, help="file libfaketime reads its offset from; empty: clocks cannot be set")
ap.add_argument("--faketime", required=True)
ap.add_argument("--room", default="", help="file system of its own that the data lies on, to be filled; empty: none")
ap.add_argument("--times", type=int, default=1)
ap.add_argument("only", nargs="*")
args = ap.parse_args()
PORT = 8397
BASE = f"http://127.0.0.1:{PORT}"
OWNER = os.environ["OWNER_DATABASE_URL"]
ADMIN = os.environ["ADMIN_DATABASE_URL"]
faults = []
env = dict(os.environ)
if args.clock:
    env |= {"LD_PRELOAD": args.faketime, "FAKETIME_TIMESTAMP_FILE": args.clock, "FAKETIME_NO_CACHE": "1",
            "FAKETIME_DONT_FAKE_MONOTONIC": "1"}


def fault(what):
    faults.append(what)
    print(f"  FAULT: {what}", flush=True)


def ask(method, path, body=None, key=None, limit=40, base=BASE):
    return asking.ask(base, method, path, body, key, limit)


def psql(sql, url=OWNER):
    out = subprocess.run(["psql", url, "-qtAc", sql], capture_output=True, text=True, check=True)
    return out.stdout.strip()


def as_pg(*command, **more):
    who = ["runuser", "-u", args.pg_user, "--"] if args.pg_user else []
    return subprocess.run([*who, *command], check=more.pop("check", True), stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL, **more)


def pg_start():
    as_pg("env", *[f"{k}={env[k]}" for k in env if k.startswith("FAKETIME") or k == "LD_PRELOAD"],
          f"{args.pg_bin}/pg_ctl", "-D", args.data, "-w", "-l", args.data + "/../log", "-o", args.pg_options, "start", check=False)


def pg_stop(how):
    as_pg(f"{args.pg_bin}/pg_ctl", "-D", args.data, "-w", "-m", how, "stop", check=False)


def postmaster():
    with open(f"{args.data}/postmaster.pid", encoding="ascii") as f:
        return int(f.readline())


def family(pid):
    """A process and everything it started."""
    out = subprocess.run(["ps", "-o", "pid=", "--ppid", str(pid)], capture_output=True, text=True, check=False).stdout.split()
    return [pid, *(int(p) for p in out)]


pg_stop("fast")
if args.clock:
    with open(args.clock, "w", encoding="ascii") as f:
        f.write("+0\n")
pg_start()
server = subprocess.Popen([args.binary, "serve", "--demo", "--listen", f"127.0.0.1:{PORT}"],
                          stdout=subprocess.DEVNULL, stderr=open("/tmp/troubles-server.log", "w", encoding="utf-8"), env=env)
atexit.register(server.kill)
for _ in range(300):
    if ask("GET", "/api/v1/jobs?limit=1", limit=2)[0] == 200:
        break
    time.sleep(0.1)
else:
    sys.exit("the server did not come up")
jobs = [j["job"]["id"] for j in ask("GET", "/api/v1/jobs")[1]]
facts = ask("GET", f"/api/v1/jobs/{jobs[0]}")[1]["vehicle"]["facts"]
TOLD = {"Busy", "The database did not answer", "The disk is full", "Only to be read now", "Not certain that it was saved"}


class Hands:
    """Writers of several kinds who send again with the same key until they are told that it is kept."""

    def __init__(self, n=6, base=BASE):
        self.stop = threading.Event()
        self.kept = {"note": [], "job": [], "reading": []}
        self.words = set()
        self.slowest = 0.0
        self.base = base
        self.lock = threading.Lock()
        self.threads = [threading.Thread(target=self.work, args=(i,)) for i in range(n)]
        for t in self.threads:
            t.start()

    def work(self, i):
        n = 0
        while not self.stop.is_set():
            n += 1
            kind = ("job", "reading", "note")[(i + n) % 3]
            word, key, job = f"{kind}-{uuid.uuid4().hex}", str(uuid.uuid4()), jobs[(i + n) % len(jobs)]
            if kind == "job":
                path, body = "/api/v1/jobs", {"vehicle": facts, "job": {"complaint": word}}
            elif kind == "reading":
                word = str(uuid.uuid4())
                path, body = f"/api/v1/jobs/{job}/readings", {
                    "id": word, "visit": "found", "axle": "front", "side": "left", "method": "height-hub",
                    "entries": [{"name": "value", "text": str(480 + n % 40)}], "unit": "mm"}
            else:
                # A ticket holds a hundred notes: each goes to a ticket of its own.
                made = ask("POST", "/api/v1/jobs", {"vehicle": facts, "job": {"complaint": "for a note"}}, str(uuid.uuid4()), base=self.base)
                if made[0] != 201:
                    self.heard(made)
                    continue
                job = made[1]["job"]["id"]
                path, body = f"/api/v1/jobs/{job}/notes", {"place": {"axle": "front", "side": "left"}, "text": word}
            until = time.monotonic() + 120
            while time.monotonic() < until:
                a = ask("POST", path, body, key, base=self.base)
                if a[0] in (200, 201):
                    with self.lock:
                        self.kept[kind].append(word)
                    break
                self.heard(a)
                time.sleep(0.05)
            else:
                fault(f"a {kind} was not taken within two minutes")
            time.sleep(0.02)

    def heard(self, a):
        status, body, took = a
        with self.lock:
            self.slowest = max(self.slowest, took)
            if status == 0:
                self.words.add("no answer")
            elif isinstance(body, dict):
                self.words.add(f"{status} {body.get('title')}")
                if body.get("title") not in TOLD or "saved" not in str(body.get("detail")):
                    fault(f"{status} says {body.get('title')!r}: {body.get('detail')!r}")
            else:
                fault(f"{status} without words")

    def end(self):
        self.stop.set()
        for t in self.threads:
            t.join()
        for kind, sql in [("note", "select text from note"), ("job", "select complaint from job"), ("reading", "select id from reading")]:
            there = {}
            for line in psql(sql).splitlines():
                there[line] = there.get(line, 0) + 1
            lost = [w for w in self.kept[kind] if w not in there]
            twice = [w for w in self.kept[kind] if there.get(w, 0) > 1]
            if lost or twice:
                fault(f"{kind}: {len(lost)} lost, {len(twice)} twice")
        return sum(len(v) for v in self.kept.values())


def goes_on():
    """What needs no database answers within a second, whatever the database does."""
    for path, body in [("/", None), ("/api/v1/wear-data", None)]:
        if path == "/":
            began = time.monotonic()
            with urllib.request.urlopen(BASE + path, timeout=10) as a:
                status, took = a.status, time.monotonic() - began
        else:
            status, _, took = ask("GET", path, body)
        if path == "/" and (status != 200 or took > 1):
            fault(f"{path} answers {status} after {took:.1f} s")


def back(limit=5.0):
    """Seconds until a write is confirmed again."""
    began = time.monotonic()
    while time.monotonic() - began < 90:
        if ask("POST", "/api/v1/jobs", {"vehicle": facts, "job": {"complaint": "is it back"}}, str(uuid.uuid4()), limit=3)[0] == 201:
            took = time.monotonic() - began
            if took > limit:
                fault(f"back only after {took:.1f} s")
            return took
        time.sleep(0.05)
    sys.exit("it did not come back")


def trouble(name, during, over):
    """Writers work; the trouble begins, something is looked at during it, it ends, and everything is as before."""
    hands = Hands()
    time.sleep(1)
    during()
    over()
    took = back()
    time.sleep(1)
    n = hands.end()
    print(f"{name}: {n} confirmed, told {sorted(hands.words)}, slowest refusal {hands.slowest:.1f} s, back after {took:.1f} s", flush=True)


def restart():
    pg_stop("fast")
    time.sleep(1)
    goes_on()


def death():
    for p in family(postmaster()):
        with contextlib.suppress(ProcessLookupError):
            os.kill(p, signal.SIGKILL)
    time.sleep(0.5)
    goes_on()


def again_after_death():
    with contextlib.suppress(FileNotFoundError):
        os.remove(f"{args.data}/postmaster.pid")
    pg_start()


frozen = []


def freeze():
    frozen[:] = family(postmaster())
    for p in frozen:
        os.kill(p, signal.SIGSTOP)
    until = time.monotonic() + 36
    while time.monotonic() < until:
        goes_on()
        time.sleep(2)


def thaw():
    for p in frozen:
        with contextlib.suppress(ProcessLookupError):
            os.kill(p, signal.SIGCONT)


def reads_only(on):
    for sql in [f"alter system set default_transaction_read_only = {'on' if on else 'off'}", "select pg_reload_conf()"]:
        psql(f"{sql}", ADMIN + "?options=-c%20default_transaction_read_only%3Doff")
    if on:
        time.sleep(1)
        status = ask("GET", "/api/v1/jobs")[0]
        if status != 200:
            fault(f"a list cannot be read while nothing can be written: {status}")
        status, body, _ = ask("POST", "/api/v1/jobs", {"vehicle": facts, "job": {"complaint": "x"}}, str(uuid.uuid4()))
        if (status, (body or {}).get("title")) != (503, "Only to be read now"):
            fault(f"a write says {status} {body}")
        time.sleep(1)


sleepers = []


def no_places():
    # Everybody else's places, and the server's own connections cut once.
    for _ in range(200):
        p = subprocess.Popen(["psql", os.environ["DATABASE_URL"], "-qtAc", "select pg_sleep(60)"],
                             stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
        sleepers.append(p)
        if len(sleepers) == 60:
            psql("select pg_terminate_backend(pid) from pg_stat_activity where application_name = 'bold-stance'", ADMIN)
    time.sleep(4)
    goes_on()


def places():
    for p in sleepers:
        p.kill()
        p.wait()
    psql("select pg_terminate_backend(pid) from pg_stat_activity where query like '%pg_sleep(60)%' and pid <> pg_backend_pid()", ADMIN)


held = []


def hold():
    held.append(subprocess.Popen(["psql", OWNER, "-qtAc", "begin; lock table reading in access exclusive mode; select pg_sleep(9)"],
                                 stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL))
    time.sleep(1)
    status, body, took = ask("POST", f"/api/v1/jobs/{jobs[0]}/readings", {
        "id": str(uuid.uuid4()), "visit": "found", "axle": "front", "side": "left", "method": "height-hub",
        "entries": [{"name": "value", "text": "500"}], "unit": "mm"}, str(uuid.uuid4()))
    if status != 503 or took > 6 or body.get("title") != "Busy":
        fault(f"a held lock: {status} after {took:.1f} s {body}")
    goes_on()


def let_go():
    held.pop().wait()


def clocks(offset):
    with open(args.clock, "w", encoding="ascii") as f:
        f.write(f"{offset}\n")
    time.sleep(0.2)


def clock_back():
    """What is done after a clock was set back stands behind what was done before."""
    job = ask("POST", "/api/v1/jobs", {"vehicle": facts, "job": {"complaint": "clock"}}, str(uuid.uuid4()))[1]["job"]["id"]
    texts = []
    for n, offset in enumerate(["+0", "+0", "-3600", "-3600", "-7200", "+0"]):
        clocks(offset)
        texts.append(str(490 + n))
        status, body, _ = ask("POST", f"/api/v1/jobs/{job}/readings", {
            "id": str(uuid.uuid4()), "visit": "found", "axle": "front", "side": "left", "method": "height-hub",
            "entries": [{"name": "value", "text": texts[-1]}], "unit": "mm"}, str(uuid.uuid4()))
        if status != 201:
            fault(f"a reading at {offset}: {status} {body}")
    rows = psql(f"select value from reading where job_id = '{job}' order by taken_at, seq").split()
    by_number = psql(f"select value from reading where job_id = '{job}' order by seq").split()
    ahead = psql(f"select count(*) from (select at, lag(at) over (order by id) as before from event where job_id = '{job}') x where at < before")
    if rows != by_number or len(rows) != len(texts) or int(ahead):
        fault(f"out of order after the clock was set back: {rows} {by_number} {ahead}")
    clocks("-3600")


class Deaf(socketserver.BaseRequestHandler):
    """Passes a request on and, the first time a key is seen, drops the answer on its way."""
    seen = set()
    lock = threading.Lock()

    def handle(self):
        data = b""
        while b"\r\n\r\n" not in data:
            more = self.request.recv(65536)
            if not more:
                return
            data += more
        head, _, rest = data.partition(b"\r\n\r\n")
        fields = {k.strip().lower(): v.strip() for k, _, v in (line.partition(b":") for line in head.split(b"\r\n")[1:])}
        while len(rest) < int(fields.get(b"content-length", 0)):
            rest += self.request.recv(65536)
        head = b"\r\n".join(line for line in head.split(b"\r\n") if not line.lower().startswith(b"connection:"))
        with socket.create_connection(("127.0.0.1", PORT), timeout=30) as s:
            s.sendall(head + b"\r\nConnection: close\r\n\r\n" + rest)
            answer = b""
            while more := s.recv(65536):
                answer += more
        key = fields.get(b"idempotency-key")
        with self.lock:
            lost = key is not None and key not in self.seen
            self.seen.add(key)
        if not lost:
            self.request.sendall(answer)


def answers_lost():
    class Many(socketserver.ThreadingTCPServer):
        daemon_threads = True
        allow_reuse_address = True
    with Many(("127.0.0.1", 0), Deaf) as proxy:
        threading.Thread(target=proxy.serve_forever, daemon=True).start()
        hands = Hands(4, f"http://127.0.0.1:{proxy.server_address[1]}")
        time.sleep(4)
        n = hands.end()
        proxy.shutdown()
    events = int(psql("select count(*) from audit where what = 'job' and change = 'made'"))
    made = int(psql("select count(*) from job"))
    if n < 20 or events != made:
        fault(f"answers lost: {n} confirmed, {made} jobs and {events} lines of them")
    print(f"answers lost: {n} confirmed, each after its first answer was dropped", flush=True)


def fill():
    for name, size in [("filler", 1 << 20), ("filler2", 4096)]:
        f = os.open(f"{args.room}/{name}", os.O_WRONLY | os.O_CREAT)
        with contextlib.suppress(OSError):
            while os.write(f, b"\0" * size):
                pass
        os.close(f)
    seen = set()
    until = time.monotonic() + 8
    while time.monotonic() < until:
        status, body, _ = ask("POST", "/api/v1/jobs", {"vehicle": facts, "job": {"complaint": "x" * 400}}, str(uuid.uuid4()))
        seen.add(f"{status} {(body or {}).get('title')}")
    print(f"  full: {sorted(seen)}", flush=True)
    goes_on()


def empty():
    for name in ["filler", "filler2"]:
        os.remove(f"{args.room}/{name}")
    try:
        os.kill(postmaster(), 0)
    except (ProcessLookupError, FileNotFoundError):
        # It gave up: whoever looks after the machine starts it again, as systemd would.
        pg_start()


TROUBLES = {
    "restarted": lambda: trouble("database restarted", restart, pg_start),
    "killed": lambda: trouble("database killed, all of it", death, again_after_death),
    "frozen": lambda: trouble("database frozen", freeze, thaw),
    "reads-only": lambda: trouble("only to be read", lambda: reads_only(True), lambda: reads_only(False)),
    "places": lambda: trouble("no places left", no_places, places),
    "lock": lambda: trouble("a lock held", hold, let_go),
    "clock": lambda: trouble("clock set back", clock_back, lambda: clocks("+0")) if args.clock else print("clock: not tried, no libfaketime"),
    "answers": answers_lost,
    "full": lambda: trouble("disk full", fill, empty) if args.room else print("disk full: not tried, nothing can be mounted here"),
}
for _ in range(args.times):
    for name in args.only or TROUBLES:
        TROUBLES[name]()
if server.poll() is not None:
    fault("the server ended")
print(f"{len(faults)} faults")
sys.exit(1 if faults else 0)
