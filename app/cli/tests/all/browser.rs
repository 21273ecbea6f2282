//! A browser as far as signing in goes: cookies, and what every write carries.

use serde_json::{Value, json};
use std::cell::{Cell, RefCell};
use std::collections::BTreeMap;
use std::process::Command;
use std::time::Duration;
use ureq::Agent;
use uuid::Uuid;

/// A browser: it keeps cookies and carries back what it was told to.
pub struct Browser<'a> {
    pub base: &'a str,
    agent: Agent,
    cookies: RefCell<BTreeMap<String, String>>,
    pub csrf: String,
    /// Sent as the key of every write.
    pub key: Cell<Option<Uuid>>,
}

impl<'a> Browser<'a> {
    pub fn new(base: &'a str) -> Self {
        let limit = Some(Duration::from_secs(30));
        let agent = Agent::config_builder().http_status_as_error(false).timeout_global(limit).build().into();
        Self { base, agent, cookies: RefCell::default(), csrf: String::new(), key: Cell::default() }
    }

    pub fn ask(&self, method: &str, path: &str, body: Option<&Value>) -> (u16, Value) {
        if path.starts_with("/api/v1/events") || path.starts_with("/api/v1/gauge/stream") {
            return (self.begins(path), Value::Null);
        }
        let url = format!("{}{path}", self.base);
        let text = body.map(ToString::to_string).unwrap_or_default();
        let kind = if path.ends_with(".csv") { "text/csv" } else { "application/json" };
        let (csrf, cookie) = (&self.csrf, self.cookie());
        let answer = match method {
            "GET" => self.agent.get(&url).header("cookie", &cookie).call(),
            "DELETE" => self.agent.delete(&url).header("cookie", &cookie).header("x-csrf-token", csrf).call(),
            _ => {
                let r = if method == "PUT" { self.agent.put(&url) } else { self.agent.post(&url) };
                let r = match self.key.get() {
                    Some(key) => r.header("idempotency-key", &key.to_string()),
                    None => r,
                };
                let r = r.header("content-type", kind).header("cookie", &cookie).header("x-csrf-token", csrf);
                r.send(text.as_bytes())
            }
        };
        let mut r = answer.unwrap();
        for set in r.headers().get_all("set-cookie") {
            let (name, value) = set.to_str().unwrap().split(';').next().unwrap().split_once('=').unwrap();
            assert!(
                set.to_str().unwrap().contains("HttpOnly")
                    && set.to_str().unwrap().contains("SameSite=Strict")
            );
            self.cookies.borrow_mut().insert(name.into(), value.into());
        }
        let text = r.body_mut().read_to_string().unwrap_or_default();
        (r.status().as_u16(), serde_json::from_str(&text).unwrap_or(Value::String(text)))
    }

    /// A write whose answer is lost on its way: no cookie of it arrives, and nobody reads it. Its key is kept.
    pub fn lost(&self, method: &str, path: &str, body: &Value) {
        self.key.set(Some(Uuid::new_v4()));
        let before = self.cookies.borrow().clone();
        let (status, v) = self.ask(method, path, Some(body));
        assert!(status < 300, "{v}");
        self.cookies.replace(before);
    }

    fn cookie(&self) -> String {
        self.cookies.borrow().iter().map(|(n, v)| format!("{n}={v}")).collect::<Vec<_>>().join("; ")
    }

    /// The status an endless answer begins with.
    fn begins(&self, path: &str) -> u16 {
        use std::io::{Read, Write};
        let at = self.base.strip_prefix("http://").unwrap();
        let cookies = self.cookie();
        let mut line = std::net::TcpStream::connect(at).unwrap();
        write!(line, "GET {path} HTTP/1.1\r\nhost: {at}\r\ncookie: {cookies}\r\n\r\n").unwrap();
        let mut head = [0; 12];
        line.read_exact(&mut head).unwrap();
        std::str::from_utf8(&head[9..12]).unwrap().parse().unwrap()
    }

    pub fn get(&self, path: &str) -> Value {
        let (status, v) = self.ask("GET", path, None);
        assert_eq!(status, 200, "{path}: {v}");
        v
    }

    /// Takes what every write has to carry from an answer that lets in.
    pub fn seated(&mut self, session: &Value) {
        self.csrf = session["csrf"].as_str().unwrap_or_default().to_owned();
    }

    pub fn claim(&mut self) -> String {
        let (status, v) = self.ask("POST", "/api/v1/shop/claim", Some(&claim()));
        assert_eq!(status, 201, "{v}");
        self.seated(&v["session"]);
        v["slip"].as_str().unwrap().to_owned()
    }

    /// A second browser on the same device of the shop, signed in by PIN.
    pub fn on_device(&self, name: &str, pin: &str) -> Browser<'a> {
        let (status, code) = self.ask("POST", "/api/v1/devices/code", Some(&json!({})));
        assert_eq!(status, 201, "{code}");
        let mut b = Browser::new(self.base);
        let (status, v) = b.ask(
            "POST",
            "/api/v1/devices/enrol",
            Some(&json!({"code": code["code"], "name": "Bay 2 tablet"})),
        );
        assert_eq!(status, 201, "{v}");
        let bench = b.get("/api/v1/session");
        let who = bench["names"].as_array().unwrap().iter().find(|n| n["name"] == name).unwrap();
        let (status, v) =
            b.ask("POST", "/api/v1/session/pin", Some(&json!({"member": who["member"], "pin": pin})));
        assert_eq!(status, 200, "{v}");
        b.seated(&v);
        b
    }
}

pub fn claim() -> Value {
    json!({"name": "Larkspur Axle & Arm", "bays": 3, "owner": "Owner", "pin": "4071", "device": "Front office"})
}

/// Gives everybody of the demo shop a PIN.
pub fn give_pins(owner: &Browser<'_>) -> BTreeMap<String, (Uuid, String)> {
    let pins = [("Specialist A", "2580"), ("Apprentice", "7013"), ("Front desk", "9046")];
    let people = owner.get("/api/v1/people");
    let mut out = BTreeMap::new();
    for m in people["members"].as_array().unwrap() {
        let name = m["member"]["name"].as_str().unwrap();
        let id = m["member"]["id"].as_str().unwrap();
        if let Some((_, pin)) = pins.iter().find(|(n, _)| *n == name) {
            let (status, v) =
                owner.ask("PUT", &format!("/api/v1/people/{id}/pin"), Some(&json!({"pin": pin})));
            assert_eq!(status, 200, "{v}");
            out.insert(name.to_owned(), (id.parse().unwrap(), (*pin).to_owned()));
        }
    }
    assert_eq!(out.len(), 3);
    out
}

/// RFC 6238 with a secret in base 32, as an app for codes works it out: by the same crate here, against the RFC's figures in
/// the server's own tests.
pub fn code_of(secret: &str) -> String {
    let out = Command::new("python3")
        .args(["-c", "import hmac,base64,struct,time,sys\ns=sys.argv[1]; k=base64.b32decode(s+'='*(-len(s)%8)); h=hmac.new(k,struct.pack('>Q',int(time.time())//30),'sha1').digest(); o=h[19]&15; print('%06d'%((struct.unpack('>I',h[o:o+4])[0]&0x7fffffff)%1000000))", secret])
        .output()
        .unwrap();
    String::from_utf8(out.stdout).unwrap().trim().to_owned()
}
