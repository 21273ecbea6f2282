//! Parts that contradict themselves, name what is not there, or come in a table that is none: the field is named, with what
//! would be right, and nothing is half taken.

use bold_stance_trade::part::{
    Part, list_problems, part_problems, parts_from_csv, parts_from_json, parts_to_csv, shipped_parts,
};
use bold_stance_words::English;
use serde_json::{Value, json};

/// A part that is right: a thread on the upper arm with a cam beside it.
fn good() -> Value {
    json!({
        "id": "test-arm", "name": "Test arm", "summary": "an arm on a thread", "group": "upper_arm",
        "fits": {"layouts": ["double_wishbone"], "axles": ["front"], "replaces": "upper_arm"},
        "edits": [{"kind": "reshape_arm", "arm": "upper", "longer_mm": 4.0, "forward_mm": -6.0}],
        "adjusters": [
            {"name": "Upper link", "kind": "thread", "link": "upper", "pitch_mm": 1.5, "ends": 2, "turns": [-4, 4],
             "engaged_mm": 26, "min_engaged_mm": 16},
            {"name": "Cam", "kind": "eccentric", "point": "lower_front", "direction": [0, 1, 0], "eccentricity_mm": 5,
             "min_deg": -90, "max_deg": 90, "notches_per_half_turn": 8}
        ],
        "sizes": {"unit": "mm", "values": [1, 2, 3]},
        "limits": {"upper_joint_deg": 34},
        "requires": ["toe_adjuster"], "provides": [], "conflicts": ["other-arm"],
        "side_effect": "moves toe", "labour_minutes": 90, "cost": 200, "rules": [], "access": "", "cautions": []
    })
}

fn with(path: &str, v: Value) -> Value {
    let mut part = good();
    *part.pointer_mut(path).unwrap_or_else(|| panic!("{path}")) = v;
    part
}

fn part(v: Value) -> Part {
    serde_json::from_value(v).unwrap()
}

#[test]
fn the_part_the_others_are_made_from_is_right() {
    assert_eq!(part_problems(&part(good())), []);
}

#[test]
fn a_part_that_contradicts_itself_is_named_at_the_field() {
    for (path, v, field) in [
        ("/cost", json!(-5), "cost"),
        ("/labour_minutes", json!(90_000), "labour_minutes"),
        ("/id", json!("Test Arm"), "id"),
        ("/name", json!("   "), "name"),
        ("/fits/layouts", json!([]), "fits.layouts"),
        ("/fits/axles", json!([]), "fits.axles"),
        ("/sizes/values", json!([3, 2, 1]), "sizes.values.1"),
        ("/sizes/values", json!([2, 2]), "sizes.values.1"),
        ("/sizes/values", json!([]), "sizes.values"),
        ("/limits/upper_joint_deg", json!(-4), "limits.upper_joint_deg"),
        ("/limits/upper_joint_deg", json!(140), "limits.upper_joint_deg"),
        ("/conflicts", json!(["toe_adjuster"]), "conflicts.0"),
        ("/requires", json!(["test-arm"]), "requires.0"),
        ("/edits/0/longer_mm", json!(900), "edits.0.longer_mm"),
        ("/adjusters/0/turns", json!([4, -4]), "adjusters.0.turns"),
        ("/adjusters/0/turns", json!([2, 2]), "adjusters.0.turns"),
        ("/adjusters/0/pitch_mm", json!(0), "adjusters.0.pitch_mm"),
        ("/adjusters/0/ends", json!(3), "adjusters.0.ends"),
        ("/adjusters/0/min_engaged_mm", json!(40), "adjusters.0.min_engaged_mm"),
        ("/adjusters/0/link", json!("trailing_link"), "adjusters.0.link"),
        ("/adjusters/1/point", json!("lower_middle"), "adjusters.1.point"),
        ("/adjusters/1/point", json!("strut_top"), "adjusters.1.point"),
        ("/adjusters/1/min_deg", json!(95), "adjusters.1.max_deg"),
        ("/adjusters/1/direction", json!([0, 0, 0]), "adjusters.1.direction"),
        ("/adjusters/1/eccentricity_mm", json!(0), "adjusters.1.eccentricity_mm"),
    ] {
        let p = part_problems(&part(with(path, v.clone())));
        let hit = p.iter().find(|x| x.field == field);
        let hit = hit.unwrap_or_else(|| panic!("{path} = {v}: no {field} in {p:?}"));
        assert!(!hit.wrong.en().is_empty() && !hit.right.en().is_empty(), "{hit:?}");
    }
}

#[test]
fn words_that_are_none_are_refused_when_read() {
    for (path, v, field) in [
        ("/labour_minutes", json!(-3), "labour_minutes"),
        ("/group", json!("magic"), "group"),
        ("/fits/layouts", json!(["double_wishbone", "hovercraft"]), "fits.layouts"),
        ("/edits/0/arm", json!("sideways"), "edits"),
        ("/adjusters/0/kind", json!("spell"), "adjusters"),
        ("/rules", json!(["anything"]), "rules"),
    ] {
        let text = serde_json::to_string_pretty(&json!([with(path, v.clone())])).unwrap();
        let p = parts_from_json(&text).unwrap_err();
        assert!(p[0].field.starts_with("line ") && p[0].field.contains(field), "{path} = {v}: {p:?}");
    }
    let mut extra = good();
    extra["colour"] = json!("red");
    let p = parts_from_json(&json!([extra]).to_string()).unwrap_err();
    assert!(p[0].wrong.en().contains("colour"), "{p:?}");
}

#[test]
fn a_point_of_another_layout_is_known_where_the_part_fits_it() {
    let mut p = with("/adjusters/1/point", json!("strut_top"));
    p["fits"]["layouts"] = json!(["strut"]);
    p["edits"] = json!([]);
    assert_eq!(part_problems(&part(p.clone())), []);
    // A link of a multi-link axle goes by its own name.
    p["fits"]["layouts"] = json!(["five_link"]);
    p["adjusters"][1]["point"] = json!("rear_lower_link");
    p["adjusters"][0]["link"] = json!("rear_lower_link");
    assert_eq!(part_problems(&part(p.clone())), []);
    p["adjusters"][1]["point"] = json!("Rear Lower!");
    assert_eq!(part_problems(&part(p))[0].field, "adjusters.1.point");
    for s in shipped_parts().unwrap() {
        assert_eq!(part_problems(&s), [], "{}", s.id);
    }
}

#[test]
fn a_list_whose_parts_need_each_other_in_a_ring_is_refused() {
    let chain = |ids: &[&str]| -> Vec<Part> {
        ids.iter()
            .enumerate()
            .map(|(i, id)| {
                let mut p = good();
                p["id"] = json!(id);
                p["requires"] = json!([ids[(i + 1) % ids.len()]]);
                part(p)
            })
            .collect()
    };
    for n in [2, 3, 5] {
        let ids = ["a", "b", "c", "d", "e"];
        let p = list_problems(&chain(&ids[..n]));
        assert!(p.iter().any(|x| x.wrong.en().contains("need each other in a ring")), "{n}: {p:?}");
    }
    let mut open = chain(&["a", "b", "c"]);
    open[2].requires.clear();
    assert_eq!(list_problems(&open), []);
    let twice = vec![part(good()), part(good())];
    assert!(!list_problems(&twice).is_empty(), "one id, one part");
}

fn refused(bytes: &[u8], field: &str) -> usize {
    let p = parts_from_csv(bytes).unwrap_err();
    assert!(p.iter().any(|x| x.field.contains(field)), "{field} in {p:?}");
    p.len()
}

#[test]
fn tables_that_are_none_are_refused_whole() {
    let text = parts_to_csv(&shipped_parts().unwrap()[..6]).unwrap();
    assert_eq!(parts_from_csv(text.as_bytes()).unwrap().len(), 6);
    refused(b"", "");
    refused(text.lines().next().unwrap().as_bytes(), "");
    // Another delimiter, another encoding, a byte that is no letter, a table cut off in the middle of a quote.
    refused(text.replacen("id,name", "id;name", 1).replace(',', ";").as_bytes(), "line 1");
    refused(text.replacen("id,name", "id\tname", 1).replace(',', "\t").as_bytes(), "line 1");
    let wide: Vec<u8> = text.encode_utf16().flat_map(u16::to_le_bytes).collect();
    refused(&[&[0xff, 0xfe][..], &wide].concat(), "");
    let mut latin = text.clone().into_bytes();
    latin.insert(text.len() - 2, 0xe4);
    refused(&latin, "line 7");
    let quotes: Vec<usize> = text.match_indices('"').map(|m| m.0).collect();
    let inside = quotes[quotes.len() * 2 / 3 / 2 * 2] + 1;
    refused(&text.as_bytes()[..inside], "line");
    // A column that is not known, one that is missing, a word in a number.
    refused(text.replacen("labour_minutes", "hours", 1).as_bytes(), "line 1");
    let first = text.lines().nth(1).unwrap();
    let cost = shipped_parts().unwrap()[0].cost;
    let bad = text.replacen(&format!(",{cost},"), ",dear,", 1);
    assert_ne!(bad, text, "{first}");
    refused(bad.as_bytes(), "line 2, column cost");
    // More rows than a shop has parts.
    let many = format!("{}\n{}", text.lines().next().unwrap(), format!("{first}\n").repeat(100_000));
    assert!(refused(many.as_bytes(), "") <= 50, "a person reads the first ones");
}

#[test]
fn several_faults_are_told_at_once_with_their_lines() {
    let parts = shipped_parts().unwrap();
    let text = parts_to_csv(&parts[..3]).unwrap();
    let mut lines: Vec<String> = text.lines().map(str::to_owned).collect();
    for (n, p) in parts[..3].iter().enumerate() {
        lines[n + 1] = lines[n + 1].replacen(&format!(",{},{},", p.labour_minutes, p.cost), ",-7,x,", 1);
    }
    let p = parts_from_csv(lines.join("\n").as_bytes()).unwrap_err();
    for n in 2..=4 {
        assert!(p.iter().any(|x| x.field.starts_with(&format!("line {n}, "))), "line {n} in {p:?}");
    }
}
