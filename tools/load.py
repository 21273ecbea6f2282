#!/usr/bin/env python3
"""Loads a running Bold Stance and says how its memory and its answers fare.

    tools/load.py http://127.0.0.1:8080 [seconds] [at once]

Works on the demo shop: opens jobs, works plans out, searches sets, forecasts wear, brings parts in, several at once, as a
busy shop's tablets would. Prints the median and the 99th percentile of each kind of request, and with the process id of
the server its resident memory before, at its most, and after a pause. Nothing is asserted: figures are for comparing two
builds in one run on one machine.
"""
import copy
import json
import os
import sys
import threading
import time
import urllib.request

BASE = sys.argv[1].rstrip("/")
SECONDS = float(sys.argv[2]) if len(sys.argv) > 2 else 20.0
AT_ONCE = int(sys.argv[3]) if len(sys.argv) > 3 else 8


def call(method, path, body=None):
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(BASE + path, data=data, method=method, headers={"content-type": "application/json"})
    with urllib.request.urlopen(request, timeout=60) as answer:
        return answer.read()


def server_pid():
    port = BASE.rsplit(":", 1)[1]
    for pid in filter(str.isdigit, os.listdir("/proc")):
        try:
            words = open(f"/proc/{pid}/cmdline", "rb").read().split(b"\0")
        except OSError:
            continue
        if b"serve" in words and any(w.endswith(b":" + port.encode()) for w in words):
            return int(pid)
    return None


def memory_mb(pid, what="VmRSS"):
    for line in open(f"/proc/{pid}/status"):
        if line.startswith(what):
            return int(line.split()[1]) / 1024
    return 0.0


def car_input(ticket):
    """What the screen would send: the base of a job with what its plan decided."""
    if not ticket["plans"] or not any(ticket["base"]["axles"].values()):
        return None
    return {"base": ticket["base"], "plan": ticket["plans"][0]["document"]}


def main():
    pid = server_pid()
    listed = json.loads(call("GET", "/api/v1/jobs"))
    jobs = [j["job"]["id"] for j in listed]
    inputs = [i for i in (car_input(json.loads(call("GET", f"/api/v1/jobs/{j}"))) for j in jobs) if i]
    parts = call("GET", "/api/v1/parts.json")
    took, failed, lock = {}, [], threading.Lock()

    def timed(kind, action):
        start = time.perf_counter()
        try:
            action()
        except Exception as e:  # the script reports and goes on
            with lock:
                failed.append(f"{kind}: {e}")
            return
        with lock:
            took.setdefault(kind, []).append(1000 * (time.perf_counter() - start))

    before = memory_mb(pid) if pid else 0.0
    end = time.monotonic() + SECONDS

    def worker(n):
        k = n
        while time.monotonic() < end:
            k += 1
            i = inputs[k % len(inputs)]
            height = copy.deepcopy(i)
            height["plan"]["axles"]["front"]["height_change_mm"] += k % 7
            timed("ticket", lambda: call("GET", f"/api/v1/jobs/{jobs[k % len(jobs)]}"))
            timed("plan", lambda: call("POST", "/api/v1/predict", height))
            if k % 5 == 0:
                timed("search", lambda: call("POST", "/api/v1/plans/search", {"car": i, "axle": "front", "filters": {}, "tyres": None}))
            if k % 11 == 0:
                timed("parts in", lambda: call("POST", "/api/v1/parts/import", json.loads(parts)))
            timed("list", lambda: call("GET", "/api/v1/jobs"))
            timed("parts", lambda: call("GET", "/api/v1/parts"))

    threads = [threading.Thread(target=worker, args=(n,)) for n in range(AT_ONCE)]
    for t in threads:
        t.start()
    most = before
    while any(t.is_alive() for t in threads):
        time.sleep(0.2)
        if pid:
            most = max(most, memory_mb(pid))
    for kind, list_ in sorted(took.items()):
        list_.sort()
        print(f"{kind:9} {len(list_):6}  median {list_[len(list_) // 2]:8.1f} ms   p99 {list_[int(0.99 * (len(list_) - 1))]:8.1f} ms")
    if failed:
        print(f"{len(failed)} failed, the first: {failed[0]}")
    if pid:
        time.sleep(3)
        print(f"memory: {before:.0f} MB before, {most:.0f} MB at most, {memory_mb(pid):.0f} MB after a pause, "
              f"{memory_mb(pid, 'VmHWM'):.0f} MB ever")


main()
