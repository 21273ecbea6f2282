//! Accessibility of every view in both lights: the rules of WCAG 2.2 A and AA that a program can judge (axe-core), without a
//! serious or critical finding.

use crate::harness::App;
use serde_json::{Value, json};
use std::time::Duration;

/// Serious and critical findings of a page: rule, what it says, where.
async fn findings(a: &App, script: &str) -> Vec<String> {
    a.c.execute(script, vec![]).await.unwrap();
    let run = "const done=arguments[arguments.length-1];
        axe.run(document,{runOnly:['wcag2a','wcag2aa','wcag21a','wcag21aa','wcag22aa'],resultTypes:['violations']})
           .then(r=>done(r.violations.filter(v=>['serious','critical'].includes(v.impact))
             .map(v=>v.id+': '+v.help+' | '+v.nodes.map(n=>n.target.join(' ')+' '+(n.any[0]?.message??n.all[0]?.message??n.none[0]?.message??'')).slice(0,4).join(' || '))),
            e=>done(['axe: '+e]))";
    let said = a.c.execute_async(run, vec![]).await.unwrap();
    said.as_array().unwrap().iter().map(|v| v.as_str().unwrap().to_owned()).collect()
}

#[tokio::test]
async fn every_view_is_without_a_serious_finding_in_both_lights() {
    let axe = format!("{}/../web/node_modules/axe-core/axe.min.js", env!("CARGO_MANIFEST_DIR"));
    let script = std::fs::read_to_string(axe).unwrap();
    let a = App::start(1280, 800).await;
    a.open("/").await;
    let jobs = a.fetch("/api/v1/jobs").await;
    let id = jobs[0]["job"]["id"].as_str().unwrap().to_owned();
    let mut wrong: Vec<String> = Vec::new();
    for theme in ["day", "night"] {
        let settings = "localStorage.setItem('bold-stance.settings', JSON.stringify({theme: arguments[0]}))";
        a.c.execute(settings, vec![json!(theme)]).await.unwrap();
        for view in [
            "/",
            "/new",
            "/memory",
            "/parts",
            "/jig",
            "/people",
            "/first-run",
            "arrive",
            "corner-file",
            "read",
            "read?at=prepare",
            "read?at=camber.left.front",
            "read-form",
            "plan",
            "compare",
            "wear",
            "set",
            "prove",
            "return",
            "handover",
            "story",
            "order",
        ] {
            let path = if view.starts_with('/') { view.to_owned() } else { format!("/job/{id}/{view}") };
            a.open(&path).await;
            a.el("main").await;
            // Answers of the model come in; what is dimmed meanwhile is not the view.
            tokio::time::sleep(Duration::from_millis(1200)).await;
            let title = a.c.title().await.unwrap();
            if !title.ends_with(" · Bold Stance") {
                wrong.push(format!("{theme} {view}: no title of its own: {title}"));
            }
            let own = findings(&a, &script).await;
            wrong.extend(own.into_iter().map(|f| format!("{theme} {view}: {f}")));
        }
    }
    assert!(wrong.is_empty(), "{} findings\n{}", wrong.len(), wrong.join("\n"));
    let heard: Value = a.c.execute("return !!window.axe", vec![]).await.unwrap();
    assert_eq!(heard, json!(true));
    a.finish().await;
}
