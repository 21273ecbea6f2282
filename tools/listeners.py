#!/usr/bin/env python3
"""Idle listeners on a running Bold Stance: what they take of its memory, and how soon each of them hears of a change.

    tools/listeners.py http://127.0.0.1:8080 [LISTENERS]

Opens so many streams of events, waits until they are quiet, writes a note on a ticket, and takes the time until the last of them
was told. The server has to run on this machine and be open to it (the demo shop). Nothing is asserted: figures are printed.
"""
import asyncio
import json
import resource
import sys
import time
import urllib.parse
import urllib.request

BASE = sys.argv[1].rstrip("/")
N = int(sys.argv[2]) if len(sys.argv) > 2 else 1000
at = urllib.parse.urlsplit(BASE)


def pid_of(port):
    """The process that listens on a port of this machine."""
    inodes = set()
    with open("/proc/net/tcp", encoding="ascii") as f:
        for line in f.readlines()[1:]:
            parts = line.split()
            if parts[3] == "0A" and int(parts[1].split(":")[1], 16) == port:
                inodes.add(f"socket:[{parts[9]}]")
    import glob
    import os
    for link in glob.glob("/proc/[0-9]*/fd/*"):
        try:
            if os.readlink(link) in inodes:
                return int(link.split("/")[2])
        except OSError:
            continue
    sys.exit(f"nothing listens on {port}")


def rss_mb(pid):
    with open(f"/proc/{pid}/status", encoding="ascii") as f:
        return next(int(line.split()[1]) for line in f if line.startswith("VmRSS")) / 1024


def ask(method, path, body=None):
    r = urllib.request.Request(BASE + path, method=method, data=None if body is None else json.dumps(body).encode())
    r.add_header("content-type", "application/json")
    with urllib.request.urlopen(r, timeout=20) as a:
        return json.loads(a.read() or b"null")


async def listen(told, word):
    reader, writer = await asyncio.open_connection(at.hostname, at.port)
    writer.write(f"GET /api/v1/events HTTP/1.1\r\nHost: {at.netloc}\r\nAccept: text/event-stream\r\n\r\n".encode())
    status = await reader.readline()
    if b" 200 " not in status:
        raise SystemExit(f"refused: {status.decode().strip()}")

    async def hear():
        while line := await reader.readline():
            if word in line:
                told.append(time.monotonic())
                return

    return writer, asyncio.create_task(hear())


async def main():
    pid = pid_of(at.port)
    job = ask("GET", "/api/v1/jobs?limit=1")[0]["job"]["id"]
    before = rss_mb(pid)
    told = []
    open_streams = [await listen(told, b"note") for _ in range(N)]
    await asyncio.sleep(3)
    idle = rss_mb(pid)
    began = time.monotonic()
    await asyncio.to_thread(ask, "POST", f"/api/v1/jobs/{job}/notes",
                            {"place": {"axle": "front", "side": "left"}, "text": "heard by all"})
    await asyncio.wait([task for _, task in open_streams], timeout=30)
    late = sorted(t - began for t in told)
    print(f"{N} idle listeners: {before:.0f} MB before, {idle:.0f} MB with them ({idle - before:.1f} MB, {1024 * (idle - before) / N:.0f} kB each)")
    print(f"a note is with {len(late)} of them" + (f": half after {1000 * late[len(late) // 2]:.0f} ms, the last after {1000 * late[-1]:.0f} ms" if late else ""))
    for writer, _ in open_streams:
        writer.close()


soft, hard = resource.getrlimit(resource.RLIMIT_NOFILE)
resource.setrlimit(resource.RLIMIT_NOFILE, (min(hard, N + 500) if hard > 0 else N + 500, hard))
asyncio.run(main())
