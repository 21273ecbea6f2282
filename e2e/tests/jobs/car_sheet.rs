//! A car of both axles set from its sheet: rear before front, every order followed, every gate opened on what is read at
//! it, typed as a shop types it.
use crate::harness::App;
use bold_stance_units::print_degrees;
use serde_json::Value;

/// A length in inches and sixteenths, as a tape is read.
fn sixteenths(mm: f64) -> String {
    let n = (mm / 25.4 * 16.0).round() as i64;
    format!("{} {}/16 in", n / 16, n % 16)
}

/// Degrees and minutes, as a protractor is read.
fn minutes(deg: f64) -> String {
    let m = (deg.abs() * 60.0).round() as i64;
    format!("{}{}°{:02}'", if deg < 0.0 { "-" } else { "" }, m / 60, m % 60)
}

/// Reads one quantity at a gate through its pad.
async fn read(a: &App, need: &Value, side: &str, sheet: &Value, wrong: Option<&str>) {
    let (axle, q) = (need["axle"].as_str().unwrap(), need["quantity"].as_str().unwrap());
    let id = if axle == "rear" { format!("gate-rear-{q}-{side}") } else { format!("gate-{q}-{side}") };
    let r = &sheet["answer"]["axles"][axle];
    let planned = r["states"].as_array().unwrap().iter().find(|s| s["kind"] == "planned").unwrap();
    let angle = |k: &str| planned[side]["angles"][k].as_f64().unwrap();
    let (method, entry, text) = match q {
        "height" => ("height-hub", "value", sixteenths(r[side]["planned_height_mm"].as_f64().unwrap())),
        "camber" => ("camber-gauge", "angle", minutes(angle("camber_deg"))),
        "caster" => ("caster-joint-line", "angle", minutes(angle("caster_deg"))),
        _ => ("toe-convert", "value", format!("{} deg", (angle("toe_deg") * 1000.0).round() / 1000.0)),
    };
    a.press(&id).await;
    let css = "[role=dialog] select[data-testid=dialog-method]";
    a.el(css).await.select_by_value(method).await.unwrap();
    if a.c.find(fantoccini::Locator::Css(&format!("[data-testid=entry-{entry}]"))).await.is_ok() {
        a.press(&format!("entry-{entry}")).await;
    }
    if let Some(w) = wrong {
        a.fill("[role=dialog] [data-testid=entry]", w).await;
        a.until("pad-fault", |t| !t.is_empty()).await;
    }
    a.fill("[role=dialog] [data-testid=entry]", &text).await;
    a.until("keep", |t| t.starts_with("Keep")).await;
    a.press("keep").await;
    a.gone("[role=dialog]").await;
    a.until(&id, |t| !t.contains("not read")).await;
}

#[tokio::test]
async fn a_lowered_saloon_is_set_rear_first_to_the_last_gate() {
    let a = App::start(1280, 800).await;
    a.open("/").await;
    let id = a.job("Sedge electric saloon").await;
    a.open(&format!("/job/{id}/plan?axle=rear")).await;
    a.press("mode-sets").await;
    a.until("sets-headline", |t| t.contains("on aim")).await;
    a.press("take-set").await;
    a.until("headline", |t| t == "All four wheels land on aim").await;
    a.until("saving", |t| t == "Saved").await;
    // Every order of the car is on the plan's list.
    let t = a.fetch(&format!("/api/v1/jobs/{id}")).await;
    let plan = t["plans"][0]["id"].as_str().unwrap().to_owned();
    let sheet = a.fetch(&format!("/api/v1/plans/{plan}/sheet")).await;
    a.press("panel-orders").await;
    let listed = a.text("orders-panel").await;
    let orders = sheet["answer"]["orders"].as_array().unwrap();
    assert!(orders.iter().filter(|o| o["axle"] == "rear").count() >= 4, "{orders:?}");
    for o in orders {
        let words = o["line"]["words"].as_str().unwrap();
        assert!(listed.contains(words), "{words} in {listed}");
    }
    a.open(&format!("/job/{id}/set")).await;
    a.until("set-axle", |t| t == "Rear axle").await;
    let steps = sheet["steps"].as_array().unwrap().clone();
    let at = |id: &str| steps.iter().position(|s| s["id"] == id).unwrap_or_else(|| panic!("{id}"));
    assert!(at("rear-height") < at("rear-read") && at("rear-read") < at("reswept"));
    let mut mistyped = false;
    for s in &steps {
        let title = s["title"].as_str().unwrap();
        a.until("set-now", |t| t == title).await;
        if s["kind"] == "step" {
            // What the step orders is on the screen in its words.
            for o in s["orders"].as_array().unwrap() {
                let side = o["side"].as_str().unwrap_or("axle");
                let name = o["line"]["name"].as_str().unwrap().to_lowercase().replace(' ', "-");
                let shown = a.text(&format!("set-{side}-{name}")).await;
                assert!(o["line"]["words"].as_str().unwrap().starts_with(&shown), "{shown} of {o}");
            }
            a.press("step-done").await;
            continue;
        }
        let gate = s["id"].as_str().unwrap();
        let id = format!("[data-testid=gate-{gate}] [role=checkbox]");
        for k in 1..=s["ticks"].as_array().unwrap().len() {
            let css = format!("{id}:nth-of-type({k})");
            let on = a.el(&css).await.attr("aria-checked").await.unwrap();
            if on.as_deref() != Some("true") {
                a.click(&css).await;
            }
            a.el(&format!("{css}[aria-checked=true]")).await;
        }
        for need in s["needs"].as_array().unwrap() {
            for side in ["left", "right"] {
                let wrong = (!mistyped && need["quantity"] == "height").then_some("13 17/16");
                mistyped = mistyped || wrong.is_some();
                read(&a, need, side, &sheet, wrong).await;
            }
        }
        // Read as ordered, nothing is off and it opens without a word; the last one on somebody's name.
        if a.c.find(fantoccini::Locator::Css("[data-testid=gate-off]")).await.is_ok() {
            panic!("{gate}: {}", a.text("gate-off").await);
        }
        if gate == "proved" {
            a.fill("[data-testid=gate-signed]", "Specialist A").await;
        }
        a.press("gate-pass").await;
    }
    a.until("set-now", |t| t.starts_with("All done")).await;
    let t = a.fetch(&format!("/api/v1/jobs/{id}")).await;
    let done = t["done"].as_array().unwrap();
    let steps: Vec<&str> =
        done.iter().filter_map(|d| d["step"].as_str()).filter(|s| !s.contains('/')).collect();
    assert!(steps.contains(&"rear-read") && steps.contains(&"proved"), "{steps:?}");
    let proved = done.iter().find(|d| d["step"] == "proved").unwrap();
    assert!(proved["record"]["reason"].is_null());
    // The front's expected camber stands on the printed sheet beside the rear's.
    let paper = a.inner("print-sheet").await;
    let camber = sheet["answer"]["axles"]["rear"]["left"]["set"]["camber_deg"].as_f64().unwrap();
    assert!(paper.contains("Rear left") && paper.contains(&print_degrees(camber, 1)), "{paper}");
    assert_eq!(a.console_errors().await, Vec::<String>::new());
    a.finish().await;
}
