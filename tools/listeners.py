"""tools/listeners.py ADDRESS [N]: N idle listeners of the live events of a running server: its memory before and with them, and how
long a change takes to reach all of them. The shop has to be without an owner. Figures to print, never a test."""
import json
import select
import socket
import subprocess
import sys
import time
import urllib.request

address = sys.argv[1].rstrip("/")
n = int(sys.argv[2]) if len(sys.argv) > 2 else 1000
host, port = address.split("://")[1].split(":")


def rss_kb():
    pid = subprocess.run(["sh", "-c", f"ss -ltnp 'sport = :{port}' | grep -o 'pid=[0-9]*' | head -1 | cut -d= -f2"],
                         capture_output=True, text=True, check=True).stdout.strip()
    with open(f"/proc/{pid}/status", encoding="ascii") as f:
        return int(next(line for line in f if line.startswith("VmRSS")).split()[1])


def ask(method, path, body=None):
    r = urllib.request.Request(address + path, method=method, data=None if body is None else json.dumps(body).encode(),
                               headers={"content-type": "application/json"})
    with urllib.request.urlopen(r, timeout=30) as a:
        return json.loads(a.read())


job = ask("GET", "/api/v1/jobs")[0]["job"]["id"]
for _ in range(20):
    ask("GET", f"/api/v1/jobs/{job}")
before = rss_kb()
lines = []
for _ in range(n):
    s = socket.create_connection((host, int(port)))
    s.sendall(f"GET /api/v1/events HTTP/1.1\r\nhost: {host}:{port}\r\n\r\n".encode())
    lines.append(s)
deadline = time.time() + 30
waits = set(lines)
while waits and time.time() < deadline:
    for s in select.select(list(waits), [], [], 1)[0]:
        if b'"here"' in s.recv(4096):
            waits.discard(s)
time.sleep(25)
for s in lines:
    s.setblocking(False)
    try:
        s.recv(4096)
    except BlockingIOError:
        pass
with_them = rss_kb()
began = time.time()
ask("POST", f"/api/v1/jobs/{job}/notes", {"place": {"axle": "front", "side": "left"}, "text": "told to all"})
written = time.time()
waits = set(lines)
first = None
poll = select.poll()
of = {s.fileno(): s for s in lines}
for s in lines:
    poll.register(s, select.POLLIN)
while waits and time.time() - began < 10:
    for fd, _ in poll.poll(1000):
        if b"note written" in of[fd].recv(65536):
            first = first or time.time()
            waits.discard(of[fd])
            poll.unregister(fd)
print(f"{n} listeners: {before} kB before, {with_them} kB with them (+{with_them - before} kB); answered after {written - began:.3f} s, "
      f"first told {first - began:.3f} s, all told {time.time() - began:.3f} s after it was sent, {len(waits)} not told")
