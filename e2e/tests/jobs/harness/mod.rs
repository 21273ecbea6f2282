//! A server on a database of its own, a ChromeDriver and a Chromium, all ended by their own process ids.
#![allow(dead_code, clippy::unwrap_used, clippy::expect_used, clippy::panic, missing_docs)]

use fantoccini::wd::WebDriverCompatibleCommand;
use fantoccini::{Client, ClientBuilder, Locator, elements::Element};
use serde_json::{Value, json};
use sqlx::{Connection, PgConnection};
use std::io::{BufRead, BufReader};
use std::process::{Child, Command, Stdio};
use std::time::{Duration, Instant};

/// A process that ends however the test ends.
pub struct Kill(Child);

impl Kill {
    fn now(&mut self) {
        let _ = self.0.kill();
        let _ = self.0.wait();
    }
}

impl Drop for Kill {
    fn drop(&mut self) {
        self.now();
    }
}

pub struct App {
    pub base: String,
    pub c: Client,
    pub server: Kill,
    gauge: Kill,
    gauge_at: String,
    database: String,
    driver: Kill,
    profile: std::path::PathBuf,
    /// Addresses of servers that were killed: what was on its way to them fails, rightly.
    dead: Vec<String>,
}

/// The built binary, next to the test's own folder.
fn binary() -> std::path::PathBuf {
    let exe = std::env::current_exe().unwrap();
    let dir = exe.parent().unwrap().parent().unwrap();
    let name = if dir.ends_with("examples") {
        dir.parent().unwrap().join("bold-stance")
    } else {
        dir.join("bold-stance")
    };
    assert!(name.exists(), "{} is not built: run ./test, or cargo build -p bold-stance-cli", name.display());
    name
}

/// First output line of a process that `pick` accepts, none when it ended before; the rest is drained so that it never
/// blocks.
fn line_of(child: &mut Child, pick: fn(&str) -> Option<String>) -> Option<String> {
    let mut out = BufReader::new(child.stdout.take().unwrap());
    let mut line = String::new();
    let found = loop {
        line.clear();
        if out.read_line(&mut line).unwrap() == 0 {
            return None;
        }
        if let Some(v) = pick(&line) {
            break v;
        }
    };
    std::thread::spawn(move || std::io::copy(&mut out, &mut std::io::sink()));
    Some(found)
}

/// A ChromeDriver and its port. It takes one number for both families of addresses and ends when another test has
/// just taken that number in one of them: then it is started again.
fn driver() -> (Kill, String) {
    for _ in 0..8 {
        let mut driver = Command::new("chromedriver")
            .arg("--port=0")
            .stdout(Stdio::piped())
            .stderr(Stdio::null())
            .spawn()
            .expect("chromedriver is installed");
        let port = line_of(&mut driver, |l| {
            l.rsplit_once("successfully on port ").map(|(_, p)| p.trim().trim_end_matches('.').to_owned())
        });
        let driver = Kill(driver);
        if let Some(port) = port {
            return (driver, port);
        }
    }
    panic!("chromedriver ended early eight times");
}

/// A gauge on a simulated car, as a process of its own.
fn gauge() -> (Kill, String) {
    let mut gauge = Command::new(binary())
        .args(["gauge", "--listen", "127.0.0.1:0"])
        .stdout(Stdio::piped())
        .spawn()
        .unwrap();
    let at = line_of(&mut gauge, |l| l.rsplit_once(" at ").map(|(_, u)| u.trim().to_owned()));
    (Kill(gauge), at.expect("the gauge ended early"))
}

/// The same database under the role that owns it: only its name and password differ.
fn owner_of(database: &str) -> String {
    let owner = std::env::var("TEST_OWNER_DATABASE_URL").expect("run ./test, which starts PostgreSQL");
    format!("{}/{}", owner.rsplit_once('/').unwrap().0, database.rsplit_once('/').unwrap().1)
}

fn serve(database: &str, gauge: &str) -> (Kill, String) {
    serve_at("127.0.0.1:0", database, gauge)
}

fn serve_at(listen: &str, database: &str, gauge: &str) -> (Kill, String) {
    let mut server = Command::new(binary())
        .args(["serve", "--demo", "--listen", listen, "--gauge", gauge])
        .args(["--database-url", database, "--owner-database-url", &owner_of(database)])
        .stdout(Stdio::piped())
        .spawn()
        .unwrap();
    let base = line_of(&mut server, |l| {
        l.rsplit_once(" at ").map(|(_, u)| u.trim().trim_end_matches('/').to_owned())
    });
    (Kill(server), base.expect("the server ended early"))
}

/// Another server process on the same database.
pub struct Other {
    _server: Kill,
    base: String,
}

impl Other {
    /// Writes as another screen does; the status.
    pub fn put(&self, path: &str, body: &Value) -> u16 {
        let agent: ureq::Agent = ureq::Agent::config_builder().http_status_as_error(false).build().into();
        let r = agent.put(format!("{}{path}", self.base)).header("content-type", "application/json");
        r.send(body.to_string().as_bytes()).unwrap().status().as_u16()
    }
}

impl App {
    /// Another server process on the same database.
    pub fn other_server(&self) -> Other {
        let (server, base) = serve(&self.database, &self.gauge_at);
        Other { _server: server, base }
    }

    pub async fn start(width: u32, height: u32) -> Self {
        let url = std::env::var("TEST_DATABASE_URL")
            .expect("TEST_DATABASE_URL: run ./test, which starts PostgreSQL");
        let name = format!("t_e2e_{}", uuid::Uuid::new_v4().simple());
        let mut admin = PgConnection::connect(&owner_of(&url)).await.unwrap();
        sqlx::query(sqlx::AssertSqlSafe(format!("create database {name}")))
            .execute(&mut admin)
            .await
            .unwrap();
        let database = format!("{}/{name}", url.rsplit_once('/').unwrap().0);
        let (gauge, gauge_at) = gauge();
        let (server, base) = serve(&database, &gauge_at);
        let (driver, port) = driver();
        let profile = std::env::temp_dir().join(&name);
        let args = [
            "--headless",
            "--no-sandbox",
            "--disable-gpu",
            "--disable-quic",
            "--no-first-run",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync",
            "--disable-dev-shm-usage",
            "--force-prefers-reduced-motion",
            &format!("--window-size={width},{height}"),
            &format!("--user-data-dir={}", profile.display()),
        ]
        .map(str::to_owned);
        let caps = json!({"goog:chromeOptions": {"args": args}, "goog:loggingPrefs": {"browser": "ALL"}});
        let c = ClientBuilder::new(hyper_util::client::legacy::connect::HttpConnector::new())
            .capabilities(caps.as_object().unwrap().clone())
            .connect(&format!("http://127.0.0.1:{port}"))
            .await
            .unwrap();
        // The size of the page, not of the window round it.
        let inner =
            c.execute("return [outerWidth-innerWidth, outerHeight-innerHeight]", vec![]).await.unwrap();
        c.set_window_size(
            width + inner[0].as_u64().unwrap() as u32,
            height + inner[1].as_u64().unwrap() as u32,
        )
        .await
        .unwrap();
        Self { base, c, server, gauge, gauge_at, database, driver, profile, dead: Vec::new() }
    }

    /// Gives the shop an owner, who is signed in at this browser.
    pub async fn lock(&self) {
        self.open("/").await;
        let claim = "const done = arguments[arguments.length - 1];
            fetch('/api/v1/shop/claim', {method: 'POST', headers: {'content-type': 'application/json'}, body: JSON.stringify(
              {name: 'Larkspur Axle & Arm', bays: 3, owner: 'Owner', pin: '4071', device: 'Office'})}).then((r) => done(r.status))";
        assert_eq!(self.c.execute_async(claim, vec![]).await.unwrap(), 201);
    }

    pub async fn open(&self, path: &str) {
        self.c.goto(&format!("{}{path}", self.base)).await.unwrap();
    }

    /// SIGKILL to the server; its address stays free for the one that comes back.
    pub fn kill(&mut self) {
        self.server.now();
        self.dead.push(self.base.clone());
    }

    /// Whether the database takes writes, from the next server on.
    pub async fn reads_only(&self, on: bool) {
        let mut owner = PgConnection::connect(&owner_of(&self.database)).await.unwrap();
        let name = self.database.rsplit_once('/').unwrap().1;
        let (set, to) = if on { ("set", " = on") } else { ("reset", "") };
        // Told as one that writes: it may be that its own connections only read already.
        let sql = format!(
            "set transaction_read_only = off; alter database {name} {set} default_transaction_read_only{to}"
        );
        sqlx::raw_sql(sqlx::AssertSqlSafe(sql)).execute(&mut owner).await.unwrap();
    }

    /// A new server on the same database and address.
    pub fn back(&mut self) {
        let listen = self.base.trim_start_matches("http://").to_owned();
        (self.server, self.base) = serve_at(&listen, &self.database, &self.gauge_at);
    }

    /// SIGKILL to the server, and a new one on the same database and, since pages know it, a new address.
    pub fn kill_and_restart(&mut self) {
        self.server.now();
        self.dead.push(self.base.clone());
        (self.server, self.base) = serve(&self.database, &self.gauge_at);
    }

    pub async fn el(&self, css: &str) -> Element {
        let until = Instant::now() + Duration::from_secs(12);
        loop {
            match self.c.find(Locator::Css(css)).await {
                Ok(e) => return e,
                Err(e) => assert!(Instant::now() < until, "{css}: {e}"),
            }
            tokio::time::sleep(Duration::from_millis(40)).await;
        }
    }

    /// Waits until nothing on the page answers to a selector any more.
    pub async fn gone(&self, css: &str) {
        for _ in 0..200 {
            if self.c.find_all(Locator::Css(css)).await.is_ok_and(|all| all.is_empty()) {
                return;
            }
            tokio::time::sleep(Duration::from_millis(50)).await;
        }
        panic!("{css} is still there");
    }

    /// To another address of the open application, without loading it anew.
    pub async fn go(&self, path: &str) {
        let script = "history.pushState({idx: 1}, '', arguments[0]); dispatchEvent(new PopStateEvent('popstate', {state: {idx: 1}}))";
        self.c.execute(script, vec![json!(path)]).await.unwrap();
    }

    pub async fn id(&self, testid: &str) -> Element {
        self.el(&format!("[data-testid=\"{testid}\"]")).await
    }

    /// Clicks; what slides in (menus, sheets, dialogs) once it stands still, else a click lands beside it.
    pub async fn click(&self, css: &str) {
        let until = Instant::now() + Duration::from_secs(10);
        let mut before = None;
        loop {
            let e = self.el(css).await;
            let slides = self
                .c
                .execute(
                    "return !!arguments[0].closest('.MuiModal-root')",
                    vec![serde_json::to_value(&e).unwrap()],
                )
                .await
                .is_ok_and(|v| v == json!(true));
            if slides {
                let here = e.rectangle().await.ok();
                if here.is_none() || here != before {
                    before = here;
                    assert!(Instant::now() < until, "{css}: never stands still");
                    tokio::time::sleep(Duration::from_millis(50)).await;
                    continue;
                }
            }
            match e.clone().click().await {
                Ok(()) => return,
                Err(e) if Instant::now() > until => panic!("{css}: {e}"),
                // Under a bar that stays in place: it is scrolled to the middle, as a hand would.
                Err(_) => {
                    let script = "arguments[0].scrollIntoView({ block: 'center', inline: 'center' })";
                    let at = vec![serde_json::to_value(&e).unwrap()];
                    let _ = self.c.execute(script, at).await;
                    tokio::time::sleep(Duration::from_millis(80)).await;
                }
            }
        }
    }

    /// Id of the demo job of a vehicle.
    pub async fn job(&self, vehicle: &str) -> String {
        let jobs = self.fetch("/api/v1/jobs").await;
        let one = jobs.as_array().unwrap().iter().find(|j| j["vehicle"] == vehicle).cloned().unwrap();
        one["job"]["id"].as_str().unwrap().to_owned()
    }

    pub async fn press(&self, testid: &str) {
        self.click(&format!("[data-testid=\"{testid}\"]")).await;
    }

    /// Replaces what stands in an input.
    pub async fn fill(&self, css: &str, text: &str) {
        let e = self.el(css).await;
        // A row of actions may stay over the foot of a pane: to the middle, as a hand on a wheel would.
        let middle = "arguments[0].scrollIntoView({block: 'center', inline: 'center'})";
        self.c.execute(middle, vec![serde_json::to_value(&e).unwrap()]).await.unwrap();
        e.click().await.unwrap();
        e.send_keys(&format!("\u{e009}a\u{e000}{text}")).await.unwrap();
    }

    /// Types every point of an axle, and the hub's height with its camber and toe at rest.
    pub async fn fill_points(&self, points: &[(&str, [f64; 3])]) {
        for (path, at) in points {
            for (i, v) in at.iter().enumerate() {
                self.fill(&format!("[data-testid='{path}.{i}']"), &v.to_string()).await;
            }
        }
        self.fill("[data-testid='wheel.loaded_radius_mm']", "402").await;
        self.fill("[data-testid='wheel.camber_deg']", "0").await;
        self.fill("[data-testid='wheel.toe_deg']", "0.05").await;
    }

    /// On the pad: waits for what is asked, picks a method, types its entries in order, and keeps the reading.
    pub async fn read(&self, what: &str, method: &str, entries: &[(&str, &str)]) {
        self.until("pad-what", |t| t.to_lowercase() == what).await;
        self.press(&format!("method-{method}")).await;
        self.el(&format!("[data-testid=method-{method}][aria-pressed=true]")).await;
        for (name, text) in entries {
            // `?leans` is a choice of the method, `!zeroed-on-floor` a tick.
            if let Some(choice) = name.strip_prefix('?') {
                self.choose(&format!("choice-{choice}"), text).await;
                continue;
            }
            if let Some(tick) = name.strip_prefix('!') {
                self.press(&format!("choice-{tick}")).await;
                continue;
            }
            self.press(&format!("entry-{name}")).await;
            self.el(&format!("[data-testid='entry-{name}'][aria-pressed=true]")).await;
            self.fill("[data-testid=entry]", text).await;
        }
        self.until("keep", |t| t.starts_with("Keep")).await;
        self.press("keep").await;
    }

    /// Takes a reading of a front wheel at a gate, and keeps it.
    pub async fn gate_read(&self, quantity: &str, side: &str, text: &str) {
        let id = format!("gate-{quantity}-{side}");
        self.press(&id).await;
        self.dialog_read(quantity, text).await;
        self.until(&id, |t| !t.contains("not read")).await;
    }

    /// Types a reading on the pad that is open over the page, and keeps it.
    pub async fn dialog_read(&self, quantity: &str, text: &str) {
        let (method, entry) = match quantity {
            "height" => ("height-hub", "value"),
            "camber" => ("camber-gauge", "angle"),
            "toe" => ("toe-convert", "value"),
            "wheelbase" => ("wheelbase", "value"),
            _ => ("caster-joint-line", "angle"),
        };
        self.el("[role=dialog] select[data-testid=dialog-method]")
            .await
            .select_by_value(method)
            .await
            .unwrap();
        let css = format!("[data-testid=entry-{entry}]");
        if self.c.find(Locator::Css(&css)).await.is_ok() {
            self.press(&format!("entry-{entry}")).await;
        }
        self.fill("[role=dialog] [data-testid=entry]", text).await;
        self.until("keep", |t| t.starts_with("Keep")).await;
        self.press("keep").await;
        self.gone("[role=dialog]").await;
    }

    /// Ticks the first so many of a gate.
    pub async fn gate_ticks(&self, gate: &str, n: usize) {
        for k in 1..=n {
            let css = format!("[data-testid=gate-{gate}] [role=checkbox]:nth-of-type({k})");
            if self.el(&css).await.attr("aria-checked").await.unwrap().as_deref() != Some("true") {
                self.click(&css).await;
            }
            self.el(&format!("{css}[aria-checked=true]")).await;
        }
    }

    /// On the sheet of a car whose front height changes: stands it up, sets it, and opens the gate behind it.
    pub async fn front_height_set(&self, sheet: &Value) {
        for title in ["Stand and mark", "Set front height"] {
            self.until("set-now", |t| t == title).await;
            self.press("step-done").await;
        }
        // Parts go in before the heights are read.
        while self
            .until("set-now", |t| t.starts_with("Fit") || t.starts_with("Settle"))
            .await
            .starts_with("Fit")
        {
            let before = self.text("set-now").await;
            self.press("step-done").await;
            self.until("set-now", |t| t != before).await;
        }
        self.until("set-now", |t| t.starts_with("Settle, re-read")).await;
        self.gate_ticks("settled", 2).await;
        for side in ["left", "right"] {
            let mm = sheet["answer"]["axles"]["front"][side]["planned_height_mm"].as_f64().unwrap();
            self.gate_read("height", side, &format!("{mm:.0} mm")).await;
        }
        self.press("gate-pass").await;
    }

    /// Picks from a native list.
    pub async fn choose(&self, testid: &str, value: &str) {
        let e = self.id(testid).await;
        let script = "const e=arguments[0];const s=e.tagName==='SELECT'?e:e.querySelector('select');\
             Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype,'value').set.call(s,arguments[1]);\
             s.dispatchEvent(new Event('change',{bubbles:true}));return s.value";
        let got =
            self.c.execute(script, vec![serde_json::to_value(&e).unwrap(), json!(value)]).await.unwrap();
        assert_eq!(got, json!(value), "{testid} has no {value}");
    }

    /// Text of an element as it is seen: a dialog that only just fades in is waited for.
    pub async fn text(&self, testid: &str) -> String {
        let until = Instant::now() + Duration::from_secs(3);
        loop {
            let seen = self.id(testid).await.text().await.unwrap();
            if !seen.is_empty() || self.inner(testid).await.is_empty() || Instant::now() > until {
                return seen;
            }
            tokio::time::sleep(Duration::from_millis(40)).await;
        }
    }

    /// Text of an element whether it can be seen or not.
    pub async fn inner(&self, testid: &str) -> String {
        self.id(testid).await.prop("textContent").await.unwrap().unwrap_or_default()
    }

    /// Waits until an element's text passes; panics with the last text.
    pub async fn until(&self, testid: &str, ok: impl Fn(&str) -> bool) -> String {
        let until = Instant::now() + Duration::from_secs(12);
        let mut last = String::new();
        while Instant::now() < until {
            if let Ok(e) = self.c.find(Locator::Css(&format!("[data-testid=\"{testid}\"]"))).await
                && let Ok(t) = e.text().await
            {
                if ok(&t) {
                    return t;
                }
                last = t;
            }
            tokio::time::sleep(Duration::from_millis(60)).await;
        }
        panic!("{testid} stays at {last:?}");
    }

    /// GET through the page, so the answer is the one the page would get.
    pub async fn fetch(&self, path: &str) -> Value {
        self.c
            .execute_async(
                "const d=arguments[arguments.length-1];fetch(arguments[0]).then(r=>r.json()).then(d)",
                vec![json!(path)],
            )
            .await
            .unwrap()
    }

    /// Ends everything; fails on any console error.
    pub async fn finish(mut self) {
        let errors = self.console_errors().await;
        let _ = self.c.clone().close().await;
        self.server.now();
        self.gauge.now();
        self.driver.now();
        let _ = std::fs::remove_dir_all(&self.profile);
        assert!(errors.is_empty(), "console: {errors:#?}");
    }

    pub async fn console_errors(&self) -> Vec<String> {
        let log = self.c.issue_cmd(BrowserLog).await.unwrap();
        log.as_array()
            .unwrap()
            .iter()
            .filter(|e| e["level"] == "SEVERE")
            .map(|e| e["message"].as_str().unwrap_or_default().to_owned())
            // A refused form is an answer, not a fault of the page.
            .filter(|m| !m.contains("status of 422") && !m.contains("status of 409"))
            .filter(|m| !self.dead.iter().any(|d| m.starts_with(&format!("{d}/"))))
            .collect()
    }
}

#[derive(Debug)]
struct BrowserLog;

impl WebDriverCompatibleCommand for BrowserLog {
    fn endpoint(&self, base: &url::Url, session: Option<&str>) -> Result<url::Url, url::ParseError> {
        base.join(&format!("session/{}/se/log", session.unwrap_or_default()))
    }
    fn method_and_body(&self, _: &url::Url) -> (http::Method, Option<String>) {
        (http::Method::POST, Some(json!({"type": "browser"}).to_string()))
    }
}
