"""Saves of every kind, with the server or PostgreSQL killed in the middle of them. Says what was lost, doubled or halved.

Run by tools/campaign, which brings the database. Exits 1 when anything was.
"""
import argparse
import atexit
import os
import random
import signal
import subprocess
import sys
import threading
import time
import uuid

import asking
from saves import KINDS, Shop

ap = argparse.ArgumentParser()
ap.add_argument("--binary", required=True)
ap.add_argument("--times", type=int, default=1000)
ap.add_argument("--pid-file", required=True)
ap.add_argument("--seed", type=int, default=20261130)
args = ap.parse_args()
rng = random.Random(args.seed)
PORT = 8391
BASE = f"http://127.0.0.1:{PORT}"
server = None


@atexit.register
def leave_nothing_running():
    if server:
        server.kill()


def start():
    global server
    server = subprocess.Popen(
        [args.binary, "serve", "--demo", "--listen", f"127.0.0.1:{PORT}"],
        stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL, env=os.environ)


def ask(method, path, body=None, key=None, limit=6):
    return asking.ask(BASE, method, path, body, key, limit)[:2]


def back_s():
    """Seconds until it answers again."""
    began = time.monotonic()
    while time.monotonic() - began < 60:
        if ask("GET", "/api/v1/jobs?limit=1", limit=2)[0] == 200:
            return time.monotonic() - began
        if server.poll() is not None:
            start()
        time.sleep(0.02)
    sys.exit("it did not come back within a minute")


def psql(sql):
    """What the owner of the tables sees; PostgreSQL may be in recovery when it is asked."""
    for _ in range(100):
        out = subprocess.run(["psql", os.environ["OWNER_DATABASE_URL"], "-qtAc", sql], capture_output=True, text=True)
        if out.returncode == 0:
            return out.stdout.strip()
        if out.returncode != 2:
            break
        time.sleep(0.1)
    sys.exit(f"{sql}: {out.stderr}")


start()
back_s()
shop = Shop(ask, psql)
kinds = list(KINDS)
confirmed = {k: [] for k in kinds}
slowest = 0.0
odd = []


def number(sql):
    return int(psql(shop.fill(sql)))


def told_apart():
    """By kind, how many saves its rows tell of beyond what its events tell of."""
    return {k: number(v.saved) - number(v.told) for k, v in KINDS.items() if v.told}


before = told_apart()
for n in range(args.times):
    kind = kinds[n % len(kinds)]
    word, method, path, body = KINDS[kind].make(shop, n)
    key = str(uuid.uuid4())
    got = {}
    t = threading.Thread(target=lambda: got.update(a=ask(method, path, body, key)))
    t.start()
    time.sleep(rng.random() * 0.03)
    # A fifth of them, in each round over the kinds at other ones.
    if (n + n // len(kinds)) % 5 == 4:
        # A backend of PostgreSQL dies: all of it goes through recovery.
        pids = psql("select pid from pg_stat_activity where application_name = 'bold-stance'").split()
        if pids:
            with open(args.pid_file, encoding="ascii") as f:
                assert f.readline().strip()
            try:
                os.kill(int(rng.choice(pids)), signal.SIGKILL)
            except ProcessLookupError:
                pass
            # The others are told of it a moment later; until then they answer.
            time.sleep(0.05)
    else:
        server.kill()
        server.wait()
        start()
    took = back_s()
    slowest = max(slowest, took)
    t.join()
    status, answer = got["a"]
    # A lost answer is asked for again with the same key, as the browser does; it is one write.
    for _ in range(40):
        if status not in (0, 500, 502, 503):
            break
        status, answer = ask(method, path, body, key)
        time.sleep(0.05)
    if status in (200, 201, 204):
        confirmed[kind].append(word)
    else:
        odd.append((kind, status, answer))

lost = doubled = halves = 0
for kind, of in KINDS.items():
    there = {}
    for line in psql(shop.fill(of.stands)).splitlines():
        there[line] = there.get(line, 0) + 1
    if of.over:
        # What is saved over holds the last word that was confirmed.
        wrong = [w for w in confirmed[kind][-1:] if list(there) != [w]]
    elif of.gone:
        wrong = [w for w in confirmed[kind] if w in there]
    else:
        wrong = [w for w in confirmed[kind] if w not in there]
    twice = [] if of.over else [w for w, n in there.items() if n > of.rows]
    half = [] if of.over else [w for w, n in there.items() if n < of.rows]
    for what, words in (("lost", wrong), ("twice", twice), ("by half", half)):
        if words:
            print(f"  {kind}: {what}: {words[:3]}")
    lost, doubled, halves = lost + len(wrong), doubled + len(twice), halves + len(half)
for kind, apart in told_apart().items():
    if apart != before[kind]:
        print(f"  {kind}: rows tell of {apart - before[kind]:+} saves beyond the events")
        halves += 1
server.kill()
n = {k: len(v) for k, v in confirmed.items()}
print(f"{args.times} deaths in {len(kinds)} kinds of save, {sum(n.values())} confirmed {n}: {lost} lost, {doubled} twice, "
      f"{halves} halves, {len(odd)} odd answers {odd[:5]}, back after at most {slowest:.2f} s")
sys.exit(1 if lost or doubled or halves or odd else 0)
