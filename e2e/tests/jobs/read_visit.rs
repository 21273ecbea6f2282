//! A full visit before the work, by every method on one corner: on a sloping floor, in inches, on a tablet.
use crate::harness::App;
use bold_stance_trade::reading::{Method, Quantity, shipped_methods};
use serde_json::{Value, json};

type Typed = &'static [(&'static str, &'static str)];

/// Every method the pad offers, what is typed, and what must come out (degrees, mm or kPa), by hand.
/// The floor falls 1/8 in per foot to the left in front: atan(0.125/12) = 0.5968°, out of the left top.
const EVERY: [(&str, Method, Typed, f64); 30] = [
    ("height.left.front", Method::HeightHub, &[("value", "19 5/16")], 490.5375),
    ("floor_to_arch.left.front", Method::HeightFloor, &[("value", "35 1/2")], 901.7),
    ("floor_to_frame.left.front", Method::HeightFrame, &[("value", "11⅞")], 301.625),
    ("camber.left.front", Method::CamberGauge, &[("angle", "0°24'")], 0.4 - 0.596_809),
    ("camber.left.front", Method::CamberBar, &[("angle", "0.4")], 0.4 - 0.596_809),
    // atan(1/16 over 17 in) = 0.2106°, top nearer the line.
    (
        "camber.left.front",
        Method::CamberOffsets,
        &[("top", "2 1/4"), ("bottom", "2 5/16"), ("span", "17")],
        0.210_645 - 0.596_809,
    ),
    (
        "camber.left.front",
        Method::CamberLaser,
        &[("top", "6.0625"), ("bottom", "6.125"), ("span", "17")],
        0.210_645 - 0.596_809,
    ),
    // A level on the tyre: 1/8 in of bulge less 1/16 in of gap over 25 in.
    (
        "camber.left.front",
        Method::CamberGap,
        &[("top-gap", "1/16"), ("span", "25"), ("bulge", "1/8")],
        0.143_239 - 0.596_809,
    ),
    // CP3, common practice: 0.148 in on a 17 in circle is 30'.
    (
        "camber.left.front",
        Method::CamberCalliper,
        &[("gap", "-0.148"), ("diameter", "17")],
        0.498_817 - 0.596_809,
    ),
    ("camber.left.front", Method::CamberForm, &[("offset", "-1/16"), ("diameter", "17")], -0.210_645),
    ("camber.left.front", Method::CamberRunout, &[("first", "0.3"), ("second", "0.5")], 0.4 - 0.596_809),
    ("camber.left.front", Method::CamberLevel, &[("angle", "89.8"), ("?leans", "top out")], 0.2 - 0.596_809),
    ("caster.left.front", Method::CasterScale, &[("angle", "3.9")], 3.9),
    ("caster.left.front", Method::CasterJointLine, &[("angle", "4°12'"), ("body-pitch", "0.5")], 3.7),
    ("toe.left.front", Method::ToeConvert, &[("value", "0.05")], 0.05),
    // 1/16 in over 18 in: the front gap is larger, so the wheel toes in.
    (
        "toe.left.front",
        Method::ToeString,
        &[("front-gap", "6 1/16"), ("rear-gap", "6"), ("diameter", "18")],
        0.198_943,
    ),
    // CP5, common practice, an eighth of it: 1/8 in over 24 in.
    (
        "toe.left.front",
        Method::ToeDistance,
        &[("front", "58 1/4"), ("rear", "58 3/8"), ("diameter", "24")],
        0.298_417,
    ),
    (
        "toe.left.front",
        Method::ToeScribed,
        &[("front", "58 1/4"), ("rear", "58 3/8"), ("diameter", "24")],
        0.298_417,
    ),
    ("toe.left.front", Method::ToeRimGauge, &[("difference", "1/8"), ("diameter", "24")], 0.298_417),
    (
        "toe.left.front",
        Method::ToeBars,
        &[("front", "58 1/4"), ("rear", "58 3/8"), ("diameter", "24")],
        0.298_417,
    ),
    (
        "toe.left.front",
        Method::ToePlates,
        &[("front", "58 1/4"), ("rear", "58 3/8"), ("diameter", "24")],
        0.298_417,
    ),
    ("rim_runout.left.front", Method::RimRunout, &[("high", "0.04"), ("low", "0.01")], 0.762),
    (
        "tread_depth.left.front",
        Method::TreadDepth,
        &[("inner", "8/32"), ("centre", "10/32"), ("outer", "9/32")],
        6.35,
    ),
    ("pressure.left.front", Method::Pressure, &[("value", "35 psi")], 241.3165),
    ("wheelbase.left.both", Method::Wheelbase, &[("value", "126 3/4")], 3219.45),
    ("diagonal.left.both", Method::Diagonal, &[("value", "140 1/2")], 3568.7),
    (
        "axle_offset.both.rear",
        Method::AxleCentring,
        &[("left", "1 1/2"), ("right", "1 1/4"), ("bar-angle", "8")],
        3.175,
    ),
    ("set_back.both.both", Method::SetBack, &[("left", "23 5/8"), ("right", "23 1/2")], 3.175),
    ("thrust.both.both", Method::Thrust, &[("rear-toe-left", "0.1"), ("rear-toe-right", "-0.02")], 0.06),
    ("caster.left.front", Method::CasterSweep, &[("camber-1", "1.3"), ("camber-2", "-0.9")], f64::NAN),
];

async fn van(a: &App) -> String {
    let jobs = a.fetch("/api/v1/jobs").await;
    let line = jobs.as_array().unwrap().iter().find(|j| j["vehicle"] == "Quarry 4x4 pickup").unwrap().clone();
    line["job"]["id"].as_str().unwrap().to_owned()
}

fn newest(t: &Value) -> &Value {
    t["readings"].as_array().unwrap().last().unwrap()
}

/// What the pad calls a target of the address bar.
fn what(at: &str) -> String {
    let parts: Vec<&str> = at.split('.').collect();
    let place = match (parts[1], parts[2]) {
        ("both", "both") => "whole car".to_owned(),
        ("both", axle) => format!("{axle} axle"),
        (side, "both") => format!("{side} side"),
        (side, axle) => format!("{side} {axle}"),
    };
    let name = match parts[0] {
        "axle_offset" => "axle off centre".to_owned(),
        "set_back" => "set-back".to_owned(),
        "rim_runout" => "rim run-out".to_owned(),
        "thrust" => "thrust angle".to_owned(),
        q => q.replace('_', " "),
    };
    format!("{name}, {place}")
}

async fn settled(a: &App, id: &str, more_than: usize) -> Value {
    for _ in 0..100 {
        let t = a.fetch(&format!("/api/v1/jobs/{id}")).await;
        if t["readings"].as_array().unwrap().len() > more_than {
            return t;
        }
        tokio::time::sleep(std::time::Duration::from_millis(60)).await;
    }
    panic!("the reading never arrived");
}

#[tokio::test]
async fn every_method_on_one_corner_on_a_sloping_floor_in_inches() {
    let all = shipped_methods().unwrap();
    for m in all.iter().filter(|m| !m.bench_only) {
        assert!(EVERY.iter().any(|e| e.1 == m.id), "{:?} is on the pad and not in this visit", m.id);
    }
    let a = App::start(1024, 768).await;
    a.open("/").await;
    a.c.execute("localStorage.setItem('bold-stance.settings', JSON.stringify({unit: 'in'}))", vec![])
        .await
        .unwrap();
    let id = van(&a).await;
    // Prepare: the floor is measured, an unreadable answer is refused at its item and stays.
    a.open(&format!("/job/{id}/read?at=prepare")).await;
    a.fill("[data-testid=prepare-floor_front]", "downhill").await;
    a.until("prepare-saving", |t| t == "Not saved").await;
    assert_eq!(a.id("prepare-floor_front").await.prop("value").await.unwrap().unwrap(), "downhill");
    a.fill("[data-testid=prepare-floor_front]", "1/8 in per 12 in").await;
    a.press("prepare-rocked-yes").await;
    a.press("prepare-pads-yes").await;
    a.until("prepare-saving", |t| t == "Saved").await;

    let mut count = a.fetch(&format!("/api/v1/jobs/{id}")).await["readings"].as_array().unwrap().len();
    for (at, method, entries, want) in EVERY {
        a.go(&format!("/job/{id}/read?at={at}")).await;
        let want_what = what(at);
        a.read(&want_what, &method.word(), entries).await;
        let t = settled(&a, &id, count).await;
        count += 1;
        let r = newest(&t);
        assert_eq!(r["method"], json!(method.word()));
        let typed: Vec<&str> =
            r["raw"].as_array().unwrap().iter().map(|e| e["text"].as_str().unwrap()).collect();
        assert!(entries.iter().all(|(_, text)| typed.contains(text)), "kept as typed: {typed:?}");
        let got = r["value"].as_f64().unwrap();
        if want.is_finite() {
            assert!((got - want).abs() < 2e-4 * want.abs().max(1.0), "{method:?}: {got} against {want}");
        } else {
            // On this car's own linkage: near the formula, not the same.
            let formula = 2.2 / (2.0 * 20f64.to_radians().sin());
            assert!((got - formula).abs() < 0.3 && (got - formula).abs() > 1e-4, "{got} {formula}");
        }
        assert!(r["sigma"].as_f64().unwrap() > 0.0);
    }

    // Back on the picture: the string was taken as parallel on a car whose tracks differ; a tape since then does
    // not settle it, so it is still asked about.
    a.go(&format!("/job/{id}/read")).await;
    a.until("odd-string_tracks", |t| t.contains("differ by 5/8 in")).await;
    let t = a.fetch(&format!("/api/v1/jobs/{id}")).await;
    let odd = t["visits"][0]["suspicions"].as_array().unwrap();
    assert!(odd.iter().all(|s| !s["settle"].as_str().unwrap().is_empty()), "{odd:#?}");
    // Every camber reading is still there, the last one stands.
    let cambers: Vec<&Value> = t["readings"]
        .as_array()
        .unwrap()
        .iter()
        .filter(|r| r["quantity"] == json!(Quantity::Camber) && r["axle"] == "front" && r["side"] == "left")
        .collect();
    assert!(cambers.len() >= 8);
    assert_eq!(cambers[7]["replaces"], cambers[6]["id"]);
    a.finish().await;
}

#[tokio::test]
async fn the_pad_takes_repeats_drops_the_odd_one_and_listens_to_a_gauge() {
    let a = App::start(1280, 800).await;
    a.open("/").await;
    let id = van(&a).await;
    a.open(&format!("/job/{id}/read?at=camber.left.rear")).await;
    a.press("method-camber-gap").await;
    a.el("[data-testid=method-camber-gap][aria-pressed=true]").await;
    // Keys on the screen: three repeats, one of them a slip.
    for (i, text) in ["6.5", "6", "12.5"].into_iter().enumerate() {
        if i > 0 {
            a.press("again").await;
        }
        for c in text.chars() {
            let key = format!("//div[contains(@class,'keys')]/button[text()='{c}']");
            a.c.find(fantoccini::Locator::XPath(&key)).await.unwrap().click().await.unwrap();
        }
    }
    a.until("odd-odd_one", |t| t.contains("stands 6.2")).await;
    a.press("repeat-top-gap-2").await;
    // −atan(6.25 / 466.4) = −0.768°: lip to lip from the stamped 17 in.
    a.until("result-value", |t| t == "−0.77°").await;
    // Jacked: half a degree by rule; the height on the jack is kept beside it.
    a.el("[data-testid=jack]").await.select_by_value("jacked").await.unwrap();
    a.until("correction-jacked", |t| t.contains("by rule")).await;
    a.until("result-value", |t| t == "−1.27°").await;
    a.fill("[data-testid=jacked-height]", "600").await;
    a.until("correction-jacked", |t| t.contains("600 mm on the jack")).await;
    a.press("keep").await;
    // Live: a simulated gauge in a process of its own, on the sloping floor of its simulated bay.
    a.open(&format!("/job/{id}/read?at=camber.left.front")).await;
    a.press("method-camber-gauge").await;
    let shown = a.until("gauge-angle", |t| t.contains('°')).await;
    assert!(shown.replace(['°', '−'], "").parse::<f64>().unwrap() < 1.0, "{shown}");
    a.press("gauge-hold").await;
    a.until("gauge", |t| t.contains("held")).await;
    a.press("gauge-take").await;
    let typed = a.id("entry").await.prop("value").await.unwrap().unwrap();
    let held = a.text("gauge-angle").await;
    assert_eq!(typed.replace('-', "−") + "°", held);
    a.press("gauge-hold").await;
    a.press("gauge-zero").await;
    a.until("gauge", |t| t.contains("zeroed here")).await;
    a.press("gauge-take").await;
    // Zeroed on this floor, the slope is no longer taken out a second time.
    a.until("correction-floor_slope", |t| t.contains("Zeroed on this floor")).await;
    a.press("gauge-zero").await;
    a.finish().await;
}

#[tokio::test]
async fn readings_leave_as_csv_come_back_and_are_typed_in_from_paper() {
    let a = App::start(1280, 800).await;
    a.open("/").await;
    let id = van(&a).await;
    let jobs = a.fetch("/api/v1/jobs").await;
    let other = jobs.as_array().unwrap().iter().find(|j| j["readings"] == 0).unwrap()["job"]["id"]
        .as_str()
        .unwrap()
        .to_owned();
    let script = "const [from,to,cut]=arguments, d=arguments[arguments.length-1];
        fetch(`/api/v1/jobs/${from}/readings.csv`).then(r=>r.text()).then(t=>fetch(`/api/v1/jobs/${to}/readings.csv`,
        {method:'POST',headers:{'content-type':'text/csv'},body:cut?t.replace('camber-gauge','camber-guess'):t}))
        .then(r=>r.json().then(b=>d({status:r.status,body:b})))";
    let go =
        async |cut: bool| a.c.execute_async(script, vec![json!(id), json!(other), json!(cut)]).await.unwrap();
    let refused = go(true).await;
    assert_eq!(refused["status"], 422);
    assert!(refused["body"]["problems"][0]["field"].as_str().unwrap().ends_with(", method"));
    let empty = a.fetch(&format!("/api/v1/jobs/{other}")).await;
    assert_eq!(empty["readings"].as_array().unwrap().len(), 0, "nothing half taken in");
    let taken = go(false).await;
    assert_eq!(taken["status"], 200, "{}", taken["body"]["problems"]);
    let before = a.fetch(&format!("/api/v1/jobs/{id}")).await;
    let strip = |t: &Value| -> Vec<Value> {
        let keep = [
            "visit",
            "quantity",
            "axle",
            "side",
            "method",
            "raw",
            "unit",
            "value",
            "sigma",
            "taken_at",
            "height_mm",
        ];
        t["readings"]
            .as_array()
            .unwrap()
            .iter()
            .map(|r| keep.iter().map(|k| r[k].clone()).collect())
            .collect()
    };
    assert_eq!(strip(&before), strip(&taken["body"]));

    // Paper: what was written on the floor is typed in one go; a slip keeps everything and names its field.
    let third = jobs.as_array().unwrap().iter().filter(|j| j["readings"] == 0).nth(1).unwrap()["job"]["id"]
        .as_str()
        .unwrap()
        .to_owned();
    a.open(&format!("/job/{third}/read")).await;
    a.press("paper").await;
    for (key, text) in [
        ("height.left.front-value", "352"),
        ("height.right.front-value", "35"),
        ("camber.left.front-angle", "-0.6"),
        ("camber.right.front-angle", "-0.4"),
        ("caster.left.front-camber-1", "1.9"),
        ("caster.left.front-camber-2", "-2.3"),
        ("toe.left.front-front-gap", "150"),
        ("toe.left.front-rear-gap", "149.5"),
    ] {
        a.fill(&format!("[data-testid='form-{key}']"), text).await;
    }
    a.until("form-keep", |t| t == "Keep 6 readings").await;
    a.press("form-keep").await;
    let said = a.el(".paper-row [role=alert]").await.text().await.unwrap();
    assert!(said.contains("35 mm is outside what is possible"), "{said}");
    a.fill("[data-testid='form-height.right.front-value']", "351").await;
    a.press("form-keep").await;
    a.until("value-camber-front-left", |t| t == "−0.6°").await;
    a.until("value-height-front-right", |t| t.contains("351")).await;
    a.finish().await;
}

#[tokio::test]
async fn two_tablets_read_one_car_and_nothing_is_lost() {
    let a = App::start(1280, 800).await;
    a.open("/").await;
    let id = van(&a).await;
    let before = a.fetch(&format!("/api/v1/jobs/{id}")).await["readings"].as_array().unwrap().len();
    a.open(&format!("/job/{id}/read?visit=found")).await;
    a.until("value-camber-front-left", |t| t.contains('°')).await;
    // The other tablet, at the same time as this page is open.
    let script = "const [job]=arguments, d=arguments[arguments.length-1];
        const one=(side,text)=>fetch(`/api/v1/jobs/${job}/readings`,{method:'POST',headers:{'content-type':'application/json'},
        body:JSON.stringify({id:crypto.randomUUID(),visit:'found',axle:'front',side,method:'camber-gauge',unit:'mm',
        entries:[{name:'angle',text},{name:'zeroed-on-floor',text:'true'}]})}).then(r=>r.status);
        Promise.all([...Array(12)].map((_,i)=>one(i%2?'left':'right',`-0.${10+i}`))).then(d)";
    let answers = a.c.execute_async(script, vec![json!(id)]).await.unwrap();
    assert!(answers.as_array().unwrap().iter().all(|s| s == 201), "{answers}");
    let t = a.fetch(&format!("/api/v1/jobs/{id}")).await;
    assert_eq!(t["readings"].as_array().unwrap().len(), before + 12);
    // This page follows by itself.
    let newest = t["readings"]
        .as_array()
        .unwrap()
        .iter()
        .rev()
        .find(|r| r["side"] == "left" && r["quantity"] == "camber" && r["axle"] == "front")
        .unwrap();
    let want = bold_stance_units::print_degrees(newest["value"].as_f64().unwrap(), 1);
    a.until("value-camber-front-left", |t| t == want).await;
    // A visit after the height is opened; it has an order and a decision of its own.
    a.press("visit-settled").await;
    a.until("read-height-front-left", |t| t.contains("next")).await;
    let t = a.fetch(&format!("/api/v1/jobs/{id}")).await;
    assert_eq!(t["visits"][1]["picture"]["decision"], "Cams");
    a.finish().await;
}

#[tokio::test]
async fn a_second_tablet_that_answers_first_is_followed_or_asked_about() {
    let a = App::start(1280, 800).await;
    a.open("/").await;
    let id = van(&a).await;
    a.open(&format!("/job/{id}/read?at=prepare")).await;
    a.until("prepare-saving", |t| t == "Saved").await;
    let script = "const [job,item,text]=arguments, d=arguments[arguments.length-1];
        fetch(`/api/v1/jobs/${job}`).then(r=>r.json()).then(t=>{const v=t.visits[0];return fetch(`/api/v1/jobs/${job}/visits/found`,
        {method:'PUT',headers:{'content-type':'application/json'},body:JSON.stringify({version:v.version,answers:{...v.answers,[item]:text}})})})
        .then(r=>d(r.status))";
    let other = async |item: &str, text: &str| {
        let status = a.c.execute_async(script, vec![json!(id), json!(item), json!(text)]).await.unwrap();
        assert_eq!(status, 200);
    };
    // Nothing typed here: the other's answer appears, and nothing is sent against it.
    other("fuel", "12 l").await;
    a.el("[data-testid=prepare-fuel][value='12 l']").await;
    assert_eq!(a.text("prepare-saving").await, "Saved");
    // Both at once: refused here, what was typed stays, and taking theirs keeps mine beside it.
    let at_once = "const [job]=arguments, d=arguments[arguments.length-1];
        fetch(`/api/v1/jobs/${job}`).then(r=>r.json()).then(t=>{const v=t.visits[0];
        const el=document.querySelector('[data-testid=prepare-seats]');
        Object.getOwnPropertyDescriptor(HTMLInputElement.prototype,'value').set.call(el,'80 kg');
        el.dispatchEvent(new Event('input',{bubbles:true}));
        return fetch(`/api/v1/jobs/${job}/visits/found`,
        {method:'PUT',headers:{'content-type':'application/json'},body:JSON.stringify({version:v.version,answers:{...v.answers,cargo:'40 kg'}})})})
        .then(r=>d(r.status))";
    assert_eq!(a.c.execute_async(at_once, vec![json!(id)]).await.unwrap(), 200);
    a.press("take-theirs").await;
    a.until("prepare-saving", |t| t == "Saved").await;
    let t = a.fetch(&format!("/api/v1/jobs/{id}")).await;
    let answers = &t["visits"][0]["answers"];
    assert_eq!(
        (&answers["fuel"], &answers["cargo"], &answers["seats"]),
        (&json!("12 l"), &json!("40 kg"), &json!("80 kg"))
    );
    a.finish().await;
}
