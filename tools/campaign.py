"""Saves of every kind, with the server or PostgreSQL killed in the middle of them. Says what was lost, doubled or halved.

Run by tools/campaign, which brings the database. Exits 1 when anything was.
"""
import argparse
import json
import os
import random
import signal
import subprocess
import sys
import threading
import time
import uuid

import asking

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
    """What the owner of the tables sees."""
    out = subprocess.run(["psql", os.environ["OWNER_DATABASE_URL"], "-qtAc", sql], capture_output=True, text=True, check=True)
    return out.stdout.strip()


start()
back_s()
jobs = [j["job"]["id"] for j in ask("GET", "/api/v1/jobs")[1]]
first = jobs[0]
ticket = ask("GET", f"/api/v1/jobs/{first}")[1]
plan = ticket["plans"][0]
facts = ticket["vehicle"]["facts"]
confirmed = {"note": [], "job": [], "reading": [], "plan": [], "ticket": [], "tread": []}
attempted = {"plan": set(), "ticket": set()}


def make(kind, n):
    """A write of a kind, with a word of its own in it."""
    word = f"{kind}-{n}-{uuid.uuid4().hex[:8]}"
    if kind == "note":
        # A ticket holds a hundred notes.
        return word, "POST", f"/api/v1/jobs/{jobs[n // 6 % len(jobs)]}/notes", {"place": {"axle": "front", "side": "left"}, "text": word}
    if kind == "job":
        return word, "POST", "/api/v1/jobs", {"vehicle": facts, "job": {"complaint": word}}
    if kind == "reading":
        own = str(uuid.uuid4())
        return own, "POST", f"/api/v1/jobs/{first}/readings", {
            "id": own, "visit": "found", "axle": "front", "side": "left", "method": "height-hub",
            "entries": [{"name": "value", "text": str(480 + n % 40)}], "unit": "mm"}
    if kind == "tread":
        return word, "POST", f"/api/v1/jobs/{first}/tread", {
            "mark": "A1", "entry": {"odometer_km": 100.0 + n, "place": "left_front", "depths_mm": [7.0, 7.2, 7.1], "note": word}}
    now = ask("GET", f"/api/v1/jobs/{first}")[1]
    if kind == "plan":
        p = next(x for x in now["plans"] if x["id"] == plan["id"])
        attempted["plan"].add(word)
        return word, "PUT", f"/api/v1/plans/{plan['id']}", {"version": p["version"], "name": word, "document": p["document"]}
    j = now["job"]
    attempted["ticket"].add(word)
    return word, "PUT", f"/api/v1/jobs/{first}/ticket", {"version": j["version"], "job": {
        "complaint": word, "bay": j["bay"], "kind": j["kind"], "plate": j["plate"], "odometer_km": j["odometer_km"]}}


slowest = 0.0
odd = []
kinds = list(confirmed)
for n in range(args.times):
    kind = kinds[n % len(kinds)]
    word, method, path, body = make(kind, n)
    key = str(uuid.uuid4())
    got = {}
    t = threading.Thread(target=lambda: got.update(a=ask(method, path, body, key)))
    t.start()
    time.sleep(rng.random() * 0.03)
    if n % 5 == 4:
        # A backend of PostgreSQL dies: all of it goes through recovery.
        pids = psql("select pid from pg_stat_activity where application_name = 'bold-stance'").split()
        if pids:
            with open(args.pid_file, encoding="ascii") as f:
                assert f.readline().strip()
            try:
                os.kill(int(rng.choice(pids)), signal.SIGKILL)
            except ProcessLookupError:
                pass
    else:
        server.kill()
        server.wait()
        start()
    took = back_s()
    slowest = max(slowest, took)
    t.join()
    status, _ = got["a"]
    # A lost answer is asked for again with the same key, as the browser does; it is one write.
    for _ in range(40):
        if status not in (0, 500, 502, 503):
            break
        status, _ = ask(method, path, body, key)
        time.sleep(0.05)
    if status in (200, 201):
        confirmed[kind].append(word)
    elif not (kind in ("plan", "ticket") and status == 409):
        odd.append((kind, status))

lost = doubled = 0


def count(sql, words):
    there = {}
    for line in psql(sql).splitlines():
        there[line] = there.get(line, 0) + 1
    return sum(w not in there for w in words), sum(n > 1 for n in there.values())


for kind, sql in [
    ("note", "select text from note where text like 'note-%'"),
    ("job", "select complaint from job where complaint like 'job-%'"),
    ("reading", "select id from reading"),
    ("tread", "select note from tread_line where note like 'tread-%'"),
]:
    gone, twice = count(sql, confirmed[kind])
    lost += gone
    doubled += twice
# A document that is saved over holds the last word that was confirmed, and every confirmed one left its event.
now = ask("GET", f"/api/v1/jobs/{first}")[1]
last_plan = next(x for x in now["plans"] if x["id"] == plan["id"])["name"]
lost += bool(confirmed["plan"]) and last_plan != confirmed["plan"][-1]
lost += bool(confirmed["ticket"]) and now["job"]["complaint"] != confirmed["ticket"][-1]
halves = 0
for rows, events in [
    ("select count(*) from note", "select count(*) from event where what = 'note written'"),
    ("select count(*) from job where complaint like 'job-%'",
     "select count(*) from event e join job j on j.id = e.job_id where e.what = 'arrived' and j.complaint like 'job-%'"),
    ("select count(*) from audit where what = 'note' and change = 'made'", "select count(*) from note"),
    (f"select version from plan where id = '{plan['id']}'",
     f"select 1 + count(*) from audit where what = 'plan' and row_id = '{plan['id']}' and change = 'changed'"),
]:
    halves += int(psql(rows)) != int(psql(events))
server.kill()
n = {k: len(v) for k, v in confirmed.items()}
print(f"{args.times} deaths, {sum(n.values())} confirmed writes {n}: {lost} lost, {doubled} twice, {halves} halves, "
      f"{len(odd)} odd answers {odd[:5]}, back after at most {slowest:.2f} s")
sys.exit(1 if lost or doubled or halves or odd else 0)
