#!/usr/bin/env python3
"""How a running Bold Stance paints: bytes of the first load, layout shift of each view, and how soon a slider redraws.

    tools/paint.py http://127.0.0.1:8080

Drives Chromium (1280x800) through ChromeDriver against the demo shop. Prints, for each view, what came over the wire
(compressed) and its cumulative layout shift (Layout Instability API); then for the height slider of Plan the time from the key
to the frame that shows the drawing changed: median and 95th percentile. Nothing is asserted: figures are for comparing two
builds in one run on one machine.
"""
import json
import statistics
import subprocess
import sys
import time
import urllib.error
import urllib.request

BASE = sys.argv[1].rstrip("/")
PORT = 9555
VIEWS = ["", "parts", "memory", "new"]
STAGES = ["arrive", "read", "plan", "wear", "set", "prove", "story"]
KEYS = 40


def call(method, path, body=None):
    data = None if body is None else json.dumps(body).encode()
    r = urllib.request.Request(f"http://127.0.0.1:{PORT}{path}", data=data, method=method)
    try:
        with urllib.request.urlopen(r, timeout=60) as answer:
            return json.load(answer)["value"]
    except urllib.error.HTTPError as e:
        sys.exit(f"{method} {path}: {e.read().decode()[:300]}")


class Page:
    def __init__(self):
        options = {"args": ["--headless=new", "--no-sandbox", "--window-size=1280,800", "--disable-gpu"]}
        caps = {"capabilities": {"alwaysMatch": {"browserName": "chrome", "goog:chromeOptions": options}}}
        self.at = "/session/" + call("POST", "/session", caps)["sessionId"]

    def go(self, path):
        call("POST", self.at + "/url", {"url": f"{BASE}/{path}"})

    def js(self, text, *args):
        return call("POST", self.at + "/execute/sync", {"script": text, "args": list(args)})

    def later(self, text, *args):
        return call("POST", self.at + "/execute/async", {"script": text, "args": list(args)})

    def end(self):
        call("DELETE", self.at)


LOADED = """
const all = [...performance.getEntriesByType('navigation'), ...performance.getEntriesByType('resource')];
// What was asked for before the page was there; stages fetched when it is idle come later.
const end = performance.getEntriesByType('navigation')[0].loadEventEnd;
const sum = (f) => all.filter((e) => e.startTime <= end && f(e)).reduce((a, e) => a + e.transferSize, 0);
const shift = new Promise((r) => {
  let total = 0;
  new PerformanceObserver((l) => { for (const e of l.getEntries()) if (!e.hadRecentInput) total += e.value; })
    .observe({ type: 'layout-shift', buffered: true });
  setTimeout(() => r(total), 300);
});
const done = arguments[arguments.length - 1];
shift.then((cls) => done({
  code: sum((e) => /\\.(js|css)/.test(e.name) || e.entryType === 'navigation'),
  fonts: sum((e) => /\\.woff2?/.test(e.name)),
  data: all.filter((e) => /\\/api\\//.test(e.name)).reduce((a, e) => a + e.transferSize, 0),
  cls,
}));
"""

# From the key to the frame in which the drawing under main has changed.
REDRAW = """
const [thumb, key] = arguments; const done = arguments[arguments.length - 1];
const page = document.querySelector('main');
const from = performance.now();
const seen = new MutationObserver(() => { seen.disconnect(); requestAnimationFrame(() => done(performance.now() - from)); });
page.querySelectorAll('svg').forEach((s) => seen.observe(s, { subtree: true, attributes: true, childList: true }));
setTimeout(() => { seen.disconnect(); done(null); }, 2000);
thumb.focus();
thumb.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
"""


def main():
    driver = subprocess.Popen(["chromedriver", f"--port={PORT}"], stdout=subprocess.DEVNULL)
    try:
        time.sleep(1.5)
        with urllib.request.urlopen(BASE + "/api/v1/jobs") as r:
            jobs = json.load(r)
        job = next(j for j in jobs if j["readings"] >= j["wanted"] and j["job"]["plan_id"])["job"]["id"]
        print(f"{'view':10} {'script, style':>14} {'fonts':>9} {'answers':>9}   layout shift")
        for path in VIEWS + [f"job/{job}/{s}" for s in STAGES]:
            # A browser that was never here.
            page = Page()
            page.go(path)
            time.sleep(2.5)
            m = page.later(LOADED)
            name = path.rsplit("/", 1)[-1] or "jobs"
            kb = [f"{m[k] / 1000:8.1f} kB" for k in ("code", "fonts", "data")]
            print(f"{name:10} {kb[0]:>14} {kb[1]} {kb[2]}   {m['cls']:.3f}")
            page.end()
        page = Page()
        page.go(f"job/{job}/plan")
        for _ in range(40):
            time.sleep(0.5)
            if page.js("return !!document.querySelector('[role=slider]')"):
                break
        time.sleep(3)
        took = []
        for n in range(KEYS):
            thumb = page.js("return document.querySelector('[role=slider]')")
            if thumb is None:
                print("slider: none on this page")
                break
            ms = page.later(REDRAW, thumb, "ArrowUp" if n % 10 < 5 else "ArrowDown")
            if ms is not None:
                took.append(ms)
            time.sleep(0.25)
        page.end()
        took.sort()
        if took:
            p95 = took[int(0.95 * (len(took) - 1))]
            print(f"slider: {len(took)} of {KEYS} redrawn, median {statistics.median(took):.1f} ms, p95 {p95:.1f} ms")
    finally:
        driver.terminate()


main()
