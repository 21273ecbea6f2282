//! The running binary over HTTP on a real PostgreSQL, for tests.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic, missing_docs, dead_code)]

use serde_json::{Value, json};
use sqlx::{Connection, PgConnection};
use std::io::{BufRead, BufReader};
use std::process::{Child, Command, Stdio};
use std::time::Duration;
use ureq::Agent;
use uuid::Uuid;

pub struct Server {
    pub child: Child,
    pub base: String,
    pub database: Urls,
    pub agent: Agent,
}

impl Drop for Server {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}

/// A fresh database: the address of the role that owns it, and of the one that serves.
#[derive(Clone)]
pub struct Urls {
    pub owner: String,
    pub serving: String,
}

pub fn database() -> Urls {
    let of = |name: &str| std::env::var(name).expect("run ./test, which starts PostgreSQL");
    let (owner, serving) = (of("TEST_OWNER_DATABASE_URL"), of("TEST_DATABASE_URL"));
    let name = format!("t_http_{}", Uuid::new_v4().simple());
    tokio::runtime::Runtime::new().unwrap().block_on(async {
        let mut c = PgConnection::connect(&owner).await.unwrap();
        sqlx::query(sqlx::AssertSqlSafe(format!("create database {name}"))).execute(&mut c).await.unwrap();
    });
    let at = |url: &str| format!("{}/{name}", url.rsplit_once('/').unwrap().0);
    Urls { owner: at(&owner), serving: at(&serving) }
}

pub fn spawn(database: &Urls, more: &[&str]) -> (Child, String) {
    let mut child = Command::new(env!("CARGO_BIN_EXE_bold-stance"))
        .args(["serve", "--demo", "--listen", "127.0.0.1:0"])
        .args(["--database-url", &database.serving, "--owner-database-url", &database.owner])
        .args(more)
        .stdout(Stdio::piped())
        .spawn()
        .unwrap();
    let mut line = String::new();
    BufReader::new(child.stdout.take().unwrap()).read_line(&mut line).unwrap();
    let base = line.rsplit_once(" at ").unwrap().1.trim().trim_end_matches('/').to_owned();
    (child, base)
}

impl Server {
    pub fn start() -> Self {
        let database = database();
        let (child, base) = spawn(&database, &[]);
        let agent = Agent::config_builder()
            .http_status_as_error(false)
            .timeout_global(Some(Duration::from_secs(20)))
            .build()
            .into();
        Self { child, base, database, agent }
    }

    /// SIGKILL, then a new process on the same database.
    pub fn die_and_rise(&mut self) {
        self.child.kill().unwrap();
        self.child.wait().unwrap();
        (self.child, self.base) = spawn(&self.database, &[]);
    }

    pub fn send(&self, method: &str, path: &str, body: Option<&[u8]>) -> (u16, Value) {
        let url = format!("{}{path}", self.base);
        let json = "application/json";
        let answer = match (method, body) {
            ("GET", _) => self.agent.get(&url).call(),
            ("DELETE", _) => self.agent.delete(&url).call(),
            ("PUT", Some(b)) => self.agent.put(&url).header("content-type", json).send(b),
            (_, Some(b)) => self.agent.post(&url).header("content-type", json).send(b),
            (_, None) => self.agent.post(&url).header("content-type", json).send(&b""[..]),
        };
        let mut r = answer.unwrap();
        let text = r.body_mut().read_to_string().unwrap();
        (r.status().as_u16(), serde_json::from_str(&text).unwrap_or(Value::Null))
    }

    pub fn get(&self, path: &str) -> Value {
        let (status, v) = self.send("GET", path, None);
        assert_eq!(status, 200, "{path}: {v}");
        v
    }

    pub fn post(&self, path: &str, v: &Value) -> (u16, Value) {
        self.send("POST", path, Some(v.to_string().as_bytes()))
    }

    pub fn put(&self, path: &str, v: &Value) -> (u16, Value) {
        self.send("PUT", path, Some(v.to_string().as_bytes()))
    }

    pub fn truck(&self) -> Value {
        let jobs = self.get("/api/v1/jobs");
        self.get(&format!("/api/v1/jobs/{}", jobs[0]["job"]["id"].as_str().unwrap()))
    }
}

/// The first shipped aim.
pub fn first_aim() -> Value {
    let all: Value = serde_json::from_str(include_str!("../../../../../data/aims.json")).unwrap();
    all[0].clone()
}

/// A ticket's car with its front lifted 65 mm.
pub fn car_input(ticket: &Value) -> Value {
    let axles = json!({"front": {"height_change_mm": 65.0}, "rear": {}});
    json!({"base": ticket["base"], "plan": {"axles": axles, "aim": first_aim(), "limit_mm": 3.0}})
}

pub fn fields(v: &Value) -> Vec<String> {
    v["problems"].as_array().unwrap().iter().map(|p| p["field"].as_str().unwrap().to_owned()).collect()
}
