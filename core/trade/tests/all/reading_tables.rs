//! Readings as CSV: what goes out comes in again the same, whatever was typed.

use bold_stance_trade::reading::{
    Also, COLUMNS, Correction, CorrectionKind, Jack, Method, MethodInfo, NEEDED, Place, Quantity, RawEntry,
    ReadAxle, ReadSide, Row, Spot, Visit, read_table, shipped_methods, write_table,
};
use bold_stance_units::LengthUnit;
use bold_stance_words::English;
use proptest::prelude::*;

fn place(q: Quantity, rear: bool, right: bool) -> Place {
    let axle = if rear { ReadAxle::Rear } else { ReadAxle::Front };
    let side = if right { ReadSide::Right } else { ReadSide::Left };
    match q.spot() {
        Spot::Wheel => Place { axle, side },
        Spot::Axle => Place { axle, side: ReadSide::Both },
        Spot::Side => Place { axle: ReadAxle::Both, side },
        Spot::Car => Place { axle: ReadAxle::Both, side: ReadSide::Both },
    }
}

fn row(m: &MethodInfo, texts: &[String], v: f64, flags: [bool; 4]) -> Row {
    let typed = m
        .entries
        .iter()
        .zip(texts)
        .map(|(e, t)| RawEntry {
            name: e.name.clone(),
            text: t.clone(),
            dropped: flags[2] && t.len() % 2 == 0,
        })
        .collect();
    Row {
        id: "6f9619ff-8b86-4d01-b42d-00c04fc964ff".into(),
        visit: Visit::ALL[texts.len() % 5],
        quantity: m.quantity,
        place: place(m.quantity, flags[0], flags[1]),
        method: m.id,
        typed,
        unit: if flags[3] { LengthUnit::In } else { LengthUnit::Mm },
        value: flags[3].then_some((v, v.abs())),
        corrections: if flags[0] {
            vec![Correction::applied(
                CorrectionKind::Weight,
                v,
                "Full, \"empty\"; so".into(),
                "a, b\nc".into(),
            )]
        } else {
            Vec::new()
        },
        also: if flags[1] {
            vec![Also { name: "sai_deg".into(), label: "a;b".into(), value: v }]
        } else {
            Vec::new()
        },
        jack: if flags[2] { Jack::Jacked } else { Jack::Rolled },
        jacked_height: "21 1/2 in".into(),
        height_mm: flags[1].then_some(v),
        author: "Bay 2, left".into(),
        taken_at: "2026-11-23T10:00:00.123456Z".into(),
        replaces: String::new(),
    }
}

proptest! {
    #[test]
    fn out_and_in_again_is_the_same(
        which in proptest::collection::vec(0usize..30, 1..6),
        texts in proptest::collection::vec("[ -~½⅝°′−\n]{1,14}", 8),
        v in -1e4f64..1e4,
        flags in any::<[bool; 4]>(),
    ) {
        let all = shipped_methods().unwrap();
        let rows: Vec<Row> = which.iter().map(|i| row(&all[*i], &texts, v, flags)).collect();
        let text = write_table(&rows, LengthUnit::Mm).unwrap();
        let back = read_table(&text, &all).unwrap();
        prop_assert_eq!(&back, &rows);
        prop_assert_eq!(write_table(&back, LengthUnit::Mm).unwrap(), text);
    }

    #[test]
    fn damaged_tables_are_refused_in_words(cut in 0usize..400, junk in "[\\x00-\\x7f]{0,5}") {
        let all = shipped_methods().unwrap();
        let texts: Vec<String> = (0..8).map(|i| format!("{i}.5")).collect();
        let rows: Vec<Row> = all.iter().take(4).map(|m| row(m, &texts, 1.25, [true; 4])).collect();
        let mut text = write_table(&rows, LengthUnit::Mm).unwrap();
        let at = cut.min(text.len());
        if text.is_char_boundary(at) {
            text.insert_str(at, &junk);
        }
        if let Err(list) = read_table(&text, &all) {
            prop_assert!(list.len() <= 50);
            prop_assert!(list.iter().all(|p| !p.field.is_empty() && !p.right.en().is_empty()));
        }
    }
}

#[test]
fn a_table_from_a_spreadsheet_needs_little() {
    let all = shipped_methods().unwrap();
    let rows = read_table(
        "axle,side,method,typed\nfront,left,camber-offsets,top=15mm; bottom=0; span=320mm\n",
        &all,
    )
    .unwrap();
    assert_eq!((rows[0].method, rows[0].visit, rows[0].value), (Method::CamberOffsets, Visit::Found, None));
    assert_eq!(rows[0].typed[2], RawEntry::new("span", "320mm"));
    assert!(NEEDED.iter().all(|n| COLUMNS.contains(n)));
}

#[test]
fn faults_name_line_and_column_and_the_rest_is_not_taken() {
    let all = shipped_methods().unwrap();
    let head = "axle,side,method,typed,value,sigma,unit\n";
    for (body, field) in [
        ("front,left,camber-gauge,angle,,,\n", "line 2, typed"),
        ("front,left,camber-gauge,angle=1,0.5,,\n", "line 2, sigma"),
        ("front,left,camber-gauge,angle=1,inf,0.1,\n", "line 2, value"),
        ("front,left,camber-gauge,angle=1,,,yards\n", "line 2, unit"),
        ("up,left,camber-gauge,angle=1,,,\n", "line 2, axle"),
        ("front,left,camber-gauge,angle=1,,,mm,extra\n", "line 2, row"),
        ("front,left,wheelbase,value=3000,,,\n", "line 2, side"),
    ] {
        let p = read_table(&format!("{head}{body}"), &all).unwrap_err();
        assert_eq!(p[0].field, field, "{body}: {p:?}");
    }
    let p = read_table("axle,side,method,typed,colour\n", &all).unwrap_err();
    assert!(p[0].wrong.en().contains("colour") && p[0].right.en().contains("taken_at"));
    let many = format!("axle,side,method,typed\n{}", "front,left,camber-gauge,angle=1\n".repeat(5001));
    assert!(read_table(&many, &all).unwrap_err()[0].wrong.en().contains("5000"));
}

/// In inches the lengths and their column are inches, angles stay angles, and what comes back is what was kept.
#[test]
fn the_columns_follow_the_units() {
    let all = shipped_methods().unwrap();
    let texts: Vec<String> = (0..8).map(|i| format!("{i}.5")).collect();
    let of = |q: Quantity| all.iter().find(|m| m.quantity == q).unwrap();
    let mut rows: Vec<Row> =
        [Quantity::Height, Quantity::Camber].map(|q| row(of(q), &texts, 498.475, [true; 4])).into();
    rows[0].height_mm = Some(508.0);
    let text = write_table(&rows, LengthUnit::In).unwrap();
    assert!(text.lines().next().unwrap().contains(",jacked_height,height_in,"), "{text}");
    assert!(
        text.contains(",19.625,") && text.contains(",in,") && text.contains(",20,"),
        "19 5/8 and 20 in: {text}"
    );
    assert!(text.contains(",498.475,") && text.contains(",deg,"), "an angle is no length: {text}");
    assert_eq!(read_table(&text, &all).unwrap(), rows);
    let wrong = text.replace(",deg,", ",in,");
    assert_eq!(read_table(&wrong, &all).unwrap_err()[0].field, "line 3, value_unit");
}
