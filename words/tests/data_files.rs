//! What data files say: printed as it stands, in every unit.
#![allow(clippy::unwrap_used)]

/// A sentence of a data file is printed as it stands, whatever somebody works in: a measure in it is told both ways.
#[test]
fn a_measure_in_a_data_file_is_told_both_ways() {
    fn texts(v: &serde_json::Value, out: &mut Vec<String>) {
        match v {
            serde_json::Value::String(t) => out.push(t.clone()),
            serde_json::Value::Array(l) => l.iter().for_each(|v| texts(v, out)),
            serde_json::Value::Object(m) => m.values().for_each(|v| texts(v, out)),
            _ => {}
        }
    }
    fn files(dir: &std::path::Path, out: &mut Vec<std::path::PathBuf>) {
        for f in std::fs::read_dir(dir).unwrap() {
            let f = f.unwrap().path();
            // What a demo shop typed is its own; the notation's cases are both ways of writing; a law's figures are its own.
            let own = ["demo", "notation.json", "tread_limits.json"].iter().any(|n| f.ends_with(n));
            match (own, f.is_dir()) {
                (true, _) => {}
                (_, true) => files(&f, out),
                _ => out.push(f),
            }
        }
    }
    let has = |t: &str, units: &[&str]| {
        let mut last = "";
        t.split(|c: char| !c.is_alphanumeric()).filter(|w| !w.is_empty()).any(|w| {
            let after = last.ends_with(|c: char| c.is_ascii_digit()) && units.contains(&w);
            last = w;
            after
        })
    };
    let mut list = Vec::new();
    files(std::path::Path::new(concat!(env!("CARGO_MANIFEST_DIR"), "/../data")), &mut list);
    let mut all = Vec::new();
    for f in &list {
        texts(&serde_json::from_str(&std::fs::read_to_string(f).unwrap()).unwrap(), &mut all);
    }
    assert!(all.len() > 500, "{} texts in {} files", all.len(), list.len());
    let mut measured = 0;
    for t in &all {
        let (metric, inch) =
            (has(t, &["mm", "km", "kPa", "kg", "l"]), has(t, &["in", "miles", "psi", "lb", "gal"]));
        assert_eq!(metric, inch, "told one way: {t}");
        measured += usize::from(metric);
    }
    assert!(measured > 5, "{measured} texts with a measure");
}
