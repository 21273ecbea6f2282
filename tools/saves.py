"""Every kind of save there is: what is asked, and what has to be found of it afterwards.

Each kind is a function of a shop and a number. It gives the word or state it saves and the request. What it left is asked of the
tables as their owner sees them, never of the server.
"""
import uuid
from dataclasses import dataclass
from typing import Callable

ROWS = 4  # of every table that comes in: all of them or none


@dataclass
class Kind:
    """A kind of save."""

    make: Callable  # (shop, n) -> word, method, path, body
    stands: str  # its words as they stand, one row each; of what is saved over, the one that stands
    saved: str = ""  # how many saves the rows tell of
    told: str = ""  # how many saves the events tell of
    over: bool = False  # saved over: only the last word stands
    gone: bool = False  # taken out: a confirmed word must not stand
    rows: int = 1  # rows a word has to have, or none


class Shop:
    """The demo's shop as the kinds need it."""

    def __init__(self, ask, psql):
        self.ask, self.psql = ask, psql
        self.jobs = [j["job"]["id"] for j in self.get("/api/v1/jobs")]
        tickets = {j: self.ticket(j) for j in self.jobs}
        self.first = self.jobs[0]
        first = tickets[self.first]
        self.plan = first["plans"][0]["id"]
        self.facts = first["vehicle"]["facts"]
        self.part = next(p["part"] for p in self.get("/api/v1/parts") if not p["part"].get("adjusters"))
        self.aim = self.get("/api/v1/aims")[0]["aim"]
        # Steps, answers and what comes after are kept on a job of their own, so that nothing else moves its versions.
        self.second = next(j for j, t in tickets.items() if t["job"]["stage"] == "set")
        self.set = tickets[self.second]["plans"][0]["id"]
        sheet = self.get(f"/api/v1/plans/{self.set}/sheet")
        self.step = next(s["id"] for s in sheet["steps"] if s["orders"])
        self.third, self.choices = self.two_plans()
        self.bundle = self.get(f"/api/v1/jobs/{self.second}/bundle.json")

    def get(self, path):
        status, answer = self.ask("GET", path)
        assert status == 200, (status, path, answer)
        return answer

    def ticket(self, job):
        return self.get(f"/api/v1/jobs/{job}")

    def put(self, method, path, body):
        """Something a save needs before it: done without a death."""
        status, answer = self.ask(method, path, body)
        assert status in (200, 201), (status, path, answer)
        return answer

    def two_plans(self):
        """A job of its own with two plans, to choose between."""
        made = self.put("POST", "/api/v1/jobs", {"vehicle": self.facts, "job": {"complaint": "to choose between"}})["job"]["id"]
        return made, [self.put("POST", f"/api/v1/jobs/{made}/plans", {"name": f"choice {n}"})["id"] for n in (1, 2)]

    def fill(self, sql):
        """A question of a kind, with the ids it is about."""
        ids = {k: getattr(self, k) for k in ("first", "second", "third", "plan", "set", "step")}
        bundled = {"bundled_" + k: len(self.bundle[k]) for k in ("readings", "plans")}
        return sql.format(**ids, **bundled)

    def many(self, n):
        """A job that is given few things at a time: lists of a ticket are bounded. The one whose steps are done is left alone."""
        others = [j for j in self.jobs if j != self.second]
        return others[n % len(others)]


def word_of(kind, n):
    return f"{kind}-{n}-{uuid.uuid4().hex[:8]}"


def note(s, n):
    w = word_of("note", n)
    return w, "POST", f"/api/v1/jobs/{s.many(n)}/notes", {"place": {"axle": "front", "side": "left"}, "text": w}


def job(s, n):
    w = word_of("job", n)
    return w, "POST", "/api/v1/jobs", {"vehicle": s.facts, "job": {"complaint": w}}


def again(s, n):
    w = word_of("again", n)
    old = s.put("POST", "/api/v1/jobs", {"vehicle": s.facts | {"name": w}, "job": {"complaint": "came before"}})["job"]["id"]
    return w, "POST", f"/api/v1/jobs/{old}/again", None


def bundle(s, n):
    w = word_of("bundle", n)
    return w, "POST", "/api/v1/jobs/import", s.bundle | {"complaint": w}


def height(own, side, n):
    return {"id": own, "visit": "found", "axle": "front", "side": side, "method": "height-hub",
            "entries": [{"name": "value", "text": str(480 + n % 40)}], "unit": "mm"}


def reading(s, n):
    own = str(uuid.uuid4())
    return own, "POST", f"/api/v1/jobs/{s.first}/readings", height(own, "left", n)


def form(s, n):
    """Four readings of a paper form; a height of its own tells which form."""
    text = str(400 + n % 200) + "." + str(1000 + n)
    body = [height(str(uuid.uuid4()), side, n) for side in ("left", "right")]
    body += [{**height(str(uuid.uuid4()), side, n), "axle": "rear"} for side in ("left", "right")]
    for b in body:
        b["entries"][0]["text"] = text
    return text, "POST", f"/api/v1/jobs/{s.many(n)}/readings/form", body


def tread(s, n):
    w = word_of("tread", n)
    return w, "POST", f"/api/v1/jobs/{s.first}/tread", {
        "mark": "A1", "entry": {"odometer_km": 100.0 + n, "place": "left_front", "depths_mm": [7.0, 7.2, 7.1], "note": w}}


def plan(s, n):
    w = word_of("plan", n)
    p = next(x for x in s.ticket(s.first)["plans"] if x["id"] == s.plan)
    return w, "PUT", f"/api/v1/plans/{s.plan}", {"version": p["version"], "name": w, "document": p["document"]}


def new_plan(s, n):
    w = word_of("newplan", n)
    own = s.put("POST", "/api/v1/jobs", {"vehicle": s.facts, "job": {"complaint": "has plans"}})["job"]["id"]
    return w, "POST", f"/api/v1/jobs/{own}/plans", {"name": w}


def plan_removed(s, n):
    w = word_of("gone", n)
    own = s.put("POST", f"/api/v1/jobs/{s.third}/plans", {"name": w})["id"]
    return w, "DELETE", f"/api/v1/plans/{own}", None


def chosen(s, n):
    j = s.ticket(s.third)["job"]
    to = next(c for c in s.choices if c != j["plan_id"])
    return to, "PUT", f"/api/v1/jobs/{s.third}/plan", {"version": j["version"], "plan_id": to}


def ticket(s, n):
    w = word_of("ticket", n)
    j = s.ticket(s.first)["job"]
    return w, "PUT", f"/api/v1/jobs/{s.first}/ticket", {"version": j["version"], "job": {
        "complaint": w, "bay": j["bay"], "kind": j["kind"], "plate": j["plate"], "odometer_km": j["odometer_km"]}}


def away(s, n):
    j = s.ticket(s.third)["job"]
    to = j["archived_at"] is None
    return "away" if to else "out", "POST", f"/api/v1/jobs/{s.third}/away", {"version": j["version"], "away": to}


def vehicle(s, n):
    w = word_of("vehicle", n)
    v = s.ticket(s.second)["vehicle"]
    return w, "PUT", f"/api/v1/jobs/{s.second}/vehicle", {"version": v["version"], "facts": v["facts"] | {"name": w}}


def answers(s, n):
    v = next(x for x in s.ticket(s.second)["visits"] if x["kind"] == "found")
    w = str(n % 100)
    return w, "PUT", f"/api/v1/jobs/{s.second}/visits/found", {"version": v["version"], "answers": v["answers"] | {"cargo": w}}


def step(s, n):
    done = not any(d["plan_id"] == s.set and d["step"] == s.step for d in s.ticket(s.second)["done"])
    return "1" if done else "0", "PUT", f"/api/v1/plans/{s.set}/done", {"step": s.step, "done": done}


def after(s, n):
    w = word_of("felt", n)
    j = s.ticket(s.second)["job"]
    return w, "POST", f"/api/v1/jobs/{s.second}/aftercare", {"version": j["version"], "what": {"act": "road_tested", "felt": w}}


def member(s, n):
    w = word_of("member", n)
    return w, "POST", "/api/v1/people", {"name": w, "role": "apprentice"}


def part(s, n):
    w = word_of("part", n)
    return w, "PUT", f"/api/v1/parts/{w}", {"version": 0, "part": s.part | {"id": w, "name": w}}


def parts(s, n):
    w = word_of("parts", n)
    return w, "POST", "/api/v1/parts/import", [s.part | {"id": f"{w}-{i}", "name": w} for i in range(ROWS)]


def aim(s, n):
    w = word_of("aim", n)
    return w, "PUT", f"/api/v1/aims/{w}", {"version": 0, "aim": s.aim | {"id": w, "name": w}}


def shape(s, n):
    w = word_of("shape", n)
    return w, "POST", f"/api/v1/jobs/{s.second}/shapes", {"axle": "front", "name": w}


def settings(s, n):
    rate = 20 + n % 5000
    now = s.get("/api/v1/shop")
    return str(rate), "PUT", "/api/v1/shop/settings", {
        "version": now["settings_version"], "settings": now["settings"] | {"labour_rate": rate}}


def erased(s, n):
    """Words, plate and a note of a customer's job."""
    w = word_of("erased", n)
    own = s.put("POST", "/api/v1/jobs", {"vehicle": s.facts, "job": {"complaint": w}})["job"]["id"]
    s.put("POST", f"/api/v1/jobs/{own}/notes", {"place": {"axle": "front", "side": "left"}, "text": w})
    return w, "POST", f"/api/v1/jobs/{own}/erase-personal", None


def events(what, like=""):
    return f"select count(*) from event where what = '{what}'{like}"


KINDS = {
    "note": Kind(note, "select text from note where text like 'note-%'",
                 "select count(*) from note where text like 'note-%'",
                 events("note written", " and job_id in (select job_id from note where text like 'note-%')")),
    "job": Kind(job, "select complaint from job where complaint like 'job-%'",
                "select count(*) from job where complaint like 'job-%'",
                "select count(*) from event e join job j on j.id = e.job_id where e.what = 'arrived' and j.complaint like 'job-%'"),
    "again": Kind(again, "select v.name from vehicle v join job j on j.vehicle_id = v.id where v.name like 'again-%'"
                         " and j.complaint = 'came before' and j.ticket > (select min(k.ticket) from job k join vehicle u on"
                         " u.id = k.vehicle_id where u.name = v.name)",
                  "select count(*) - count(distinct v.name) from vehicle v join job j on j.vehicle_id = v.id"
                  " where v.name like 'again-%'", events("same car again")),
    "bundle": Kind(bundle, "select complaint from job j where complaint like 'bundle-%'"
                           " and (select count(*) from reading where job_id = j.id) = {bundled_readings}"
                           " and (select count(*) from plan where job_id = j.id) = {bundled_plans}",
                   "select count(*) from job where complaint like 'bundle-%'", events("job imported")),
    "reading": Kind(reading, "select id from reading", "select count(*) from reading where job_id = '{first}'",
                    events("reading kept", " and job_id = '{first}'")),
    "form": Kind(form, "select raw->0->>'text' from reading where raw->0->>'text' like '%.1___'", rows=ROWS),
    "tread": Kind(tread, "select note from tread_line where note like 'tread-%'"),
    "plan": Kind(plan, "select name from plan where id = '{plan}'", "select version - 1 from plan where id = '{plan}'",
                 "select count(*) from audit where what = 'plan' and row_id = '{plan}' and change = 'changed'", over=True),
    "new plan": Kind(new_plan, "select name from plan where name like 'newplan-%'"),
    "plan removed": Kind(plan_removed, "select name from plan where name like 'gone-%'",
                         "select count(distinct after->>'name') - (select count(*) from plan where name like 'gone-%')"
                         " from audit where what = 'plan' and after->>'name' like 'gone-%'", events("plan removed"), gone=True),
    "plan chosen": Kind(chosen, "select plan_id from job where id = '{third}'", over=True),
    "ticket": Kind(ticket, "select complaint from job where id = '{first}'", over=True),
    "away": Kind(away, "select case when archived_at is null then 'out' else 'away' end from job where id = '{third}'", over=True),
    "vehicle": Kind(vehicle, "select v.name from vehicle v join job j on j.vehicle_id = v.id where j.id = '{second}'",
                    "select v.version - 1 from vehicle v join job j on j.vehicle_id = v.id where j.id = '{second}'",
                    events("vehicle saved", " and job_id = '{second}'"), over=True),
    "answers": Kind(answers, "select answers->>'cargo' from visit where job_id = '{second}' and kind = 'found'",
                    "select count(*) from audit where what = 'visit' and job_id = '{second}' and change = 'changed'",
                    events("prepare list", " and job_id = '{second}'"), over=True),
    "step": Kind(step, "select count(*) from done_step where plan_id = '{set}' and step = '{step}'", over=True),
    "after": Kind(after, "select r->>'felt' from job, jsonb_array_elements(aftercare->'road') r where id = '{second}'"),
    "member": Kind(member, "select name from member where name like 'member-%'",
                   "select count(*) from member where name like 'member-%'", events("member added")),
    "part": Kind(part, "select id from shop_part where id like 'part-%'",
                 "select count(*) from shop_part where id like 'part-%'", events("part kept")),
    "parts": Kind(parts, "select document->>'name' from shop_part where id like 'parts-%'",
                  "select count(*) / 4 from shop_part where id like 'parts-%'", events("parts imported"), rows=ROWS),
    "aim": Kind(aim, "select id from shop_aim where id like 'aim-%'",
                "select count(*) from shop_aim where id like 'aim-%'", events("aim kept")),
    "shape": Kind(shape, "select document->>'name' from shop_shape where document->>'name' like 'shape-%'",
                  "select count(*) from shop_shape", events("shape kept")),
    "settings": Kind(settings, "select (settings->>'labour_rate')::numeric::int from shop", "select version - 1 from shop",
                     events("settings saved"), over=True),
    "erased": Kind(erased, "select complaint from job where complaint like 'erased-%' union all"
                           " select text from note where text like 'erased-%'", gone=True, rows=2),
}
