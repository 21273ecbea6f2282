//! What every route of the description has in common: how it can refuse, and the key of a write.

use crate::once::HEADER;
use crate::problem::{PROBLEM, ProblemDocument};
use actix_web::http::Method;
use std::collections::BTreeMap;
use utoipa::openapi::path::{Operation, Parameter, ParameterBuilder, ParameterIn};
use utoipa::openapi::schema::{KnownFormat, ObjectBuilder, SchemaFormat, Type};
use utoipa::openapi::{ContentBuilder, OpenApi, PathItem, Ref, RefOr, Required, ResponseBuilder};
use utoipa::{Modify, ToSchema};

/// Gives each route its refusals and each write its key.
pub struct Common;

impl Modify for Common {
    fn modify(&self, doc: &mut OpenApi) {
        for item in doc.paths.paths.values_mut() {
            let PathItem { get, put, post, delete, .. } = item;
            for (op, writes) in [(get, false), (put, true), (post, true), (delete, true)] {
                if let Some(op) = op {
                    common(op, writes);
                }
            }
        }
    }
}

fn common(op: &mut Operation, writes: bool) {
    let mut refusals = vec![
        ("401", "Nobody is signed in, or not any more"),
        ("403", "Not for this member; asked from another machine, or written from another site's page"),
        ("429", "Too often: wait as many seconds as Retry-After says"),
        ("503", "The database does not answer, or the server is shutting down"),
    ];
    let is_in = |at: ParameterIn| {
        op.parameters.iter().flatten().any(|p| match p {
            RefOr::T(p) => p.parameter_in == at,
            RefOr::Ref(_) => false,
        })
    };
    let named = is_in(ParameterIn::Path);
    if named || writes || is_in(ParameterIn::Query) {
        refusals.push(("400", "Cannot be read: address, query or body"));
    }
    if named {
        refusals.push(("404", "Not in this shop"));
    }
    if writes || is_in(ParameterIn::Query) {
        refusals.push(("422", "Fields at fault"));
    }
    if op.request_body.is_some() {
        refusals.push(("413", "Too large"));
    }
    let problem = || {
        let named = Ref::from_schema_name(ProblemDocument::name());
        ContentBuilder::new().schema(Some(named)).build()
    };
    for (status, words) in refusals {
        op.responses
            .responses
            .entry(status.to_owned())
            .or_insert_with(|| ResponseBuilder::new().description(words).build().into());
    }
    for (status, response) in &mut op.responses.responses {
        if let (true, RefOr::T(r)) = (status.as_str() >= "400", response) {
            r.content.clear();
            r.content.insert(PROBLEM.to_owned(), problem().into());
        }
    }
    if writes {
        op.parameters.get_or_insert_default().push(key().into());
    }
}

fn key() -> Parameter {
    let id = ObjectBuilder::new()
        .schema_type(Type::String)
        .format(Some(SchemaFormat::KnownFormat(KnownFormat::Uuid)));
    ParameterBuilder::new()
        .name(HEADER)
        .parameter_in(ParameterIn::Header)
        .required(Required::False)
        .description(Some(
            "Made once for a write: sent again with the same one, it is done once and answered alike",
        ))
        .schema(Some(id))
        .build()
}

/// Every address with the methods it takes, and the operation each of them is.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Addresses(Vec<(String, Vec<(&'static str, String)>)>);

/// Whether a path is of a template.
fn is_of(template: &str, path: &str) -> bool {
    let (a, b) = (template.split('/'), path.split('/'));
    a.clone().count() == b.clone().count()
        && a.zip(b).all(|(t, p)| match t.split_once('{') {
            None => t == p,
            // A name may stand in a file's name, such as `{id}.csv`.
            Some((before, rest)) => {
                let after = rest.split_once('}').map_or("", |(_, a)| a);
                p.len() > before.len() + after.len() && p.starts_with(before) && p.ends_with(after)
            }
        })
}

impl Addresses {
    /// Of a description.
    #[cfg(test)]
    #[must_use]
    pub fn of(doc: &OpenApi) -> Self {
        let methods = |item: &PathItem| {
            let all =
                [("GET", &item.get), ("PUT", &item.put), ("POST", &item.post), ("DELETE", &item.delete)];
            let id = |op: &Operation| op.operation_id.clone().unwrap_or_default();
            all.into_iter().filter_map(|(m, op)| Some((m, id(op.as_ref()?)))).collect()
        };
        Self(doc.paths.paths.iter().map(|(t, item)| (t.clone(), methods(item))).collect())
    }

    /// Of the description as it is kept beside the code (`./test` holds it to the code): made anew at every start it takes a
    /// hundred megabytes that the allocator keeps.
    ///
    /// # Errors
    /// A file that is no description.
    pub fn kept() -> serde_json::Result<Self> {
        #[derive(serde::Deserialize)]
        struct Kept {
            paths: BTreeMap<String, BTreeMap<String, Op>>,
        }
        #[derive(serde::Deserialize)]
        struct Op {
            #[serde(rename = "operationId")]
            id: String,
        }
        let doc: Kept = serde_json::from_str(include_str!("../openapi.json"))?;
        let methods = |of: &BTreeMap<String, Op>| {
            let all = [("GET", "get"), ("PUT", "put"), ("POST", "post"), ("DELETE", "delete")];
            all.into_iter().filter_map(|(m, k)| Some((m, of.get(k)?.id.clone()))).collect()
        };
        Ok(Self(doc.paths.iter().map(|(t, of)| (t.clone(), methods(of))).collect()))
    }

    /// The operation at an address, one without a name in it before one with.
    #[must_use]
    pub fn operation_at(&self, method: &Method, path: &str) -> Option<String> {
        let method = if *method == Method::HEAD { "GET" } else { method.as_str() };
        let exact = self.0.iter().filter(|(t, _)| t == path);
        let named = self.0.iter().filter(|(t, _)| t.contains('{') && is_of(t, path));
        let all = exact.chain(named).flat_map(|(_, m)| m);
        all.into_iter().find(|(m, _)| *m == method).map(|(_, id)| id.clone())
    }

    /// What an address without a name in it takes; empty where there is none.
    #[must_use]
    pub fn exactly_at(&self, path: &str) -> Vec<&'static str> {
        let of = self.0.iter().find(|(t, _)| t == path && !t.contains('{'));
        of.map(|(_, m)| m.iter().map(|(m, _)| *m).collect()).unwrap_or_default()
    }

    /// What the address takes; empty where nothing is.
    #[must_use]
    pub fn methods_at(&self, path: &str) -> Vec<&'static str> {
        let mut out: Vec<&'static str> = self
            .0
            .iter()
            .filter(|(t, _)| is_of(t, path))
            .flat_map(|(_, m)| m.iter().map(|(m, _)| *m))
            .collect();
        out.sort_unstable();
        out.dedup();
        out
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::api::description;

    #[test]
    fn what_is_kept_is_what_is_described() {
        let sorted = |mut a: Addresses| {
            a.0.sort();
            a
        };
        assert_eq!(sorted(Addresses::kept().unwrap()), sorted(Addresses::of(&description())));
    }

    #[test]
    fn an_address_knows_its_methods() {
        let all = Addresses::of(&description());
        assert_eq!(all.methods_at("/api/v1/jobs"), ["GET", "POST"]);
        assert_eq!(all.methods_at("/api/v1/plans/4/copy"), ["POST"]);
        assert_eq!(all.exactly_at("/api/v1/parts/look"), ["POST"]);
        let op = |m, p| all.operation_at(&m, p);
        assert_eq!(op(Method::POST, "/api/v1/parts/look").as_deref(), Some("lookAtPart"));
        assert_eq!(op(Method::HEAD, "/api/v1/jobs.csv").as_deref(), Some("exportJobs"));
        assert_eq!(op(Method::PUT, "/api/v1/parts/look").as_deref(), Some("keepPart"));
        assert_eq!(op(Method::PATCH, "/api/v1/jobs"), None);
        assert!(all.exactly_at("/api/v1/parts/upper-arm").is_empty());
        assert!(all.methods_at("/api/v1/jobs//plans").is_empty());
        assert!(all.methods_at("/api/v1/nothing").is_empty());
    }

    #[test]
    fn every_refusal_is_a_problem_document_and_every_write_takes_a_key() {
        let doc = serde_json::to_value(description()).unwrap();
        let mut writes = 0;
        for (path, item) in doc["paths"].as_object().unwrap() {
            for (method, op) in item.as_object().unwrap() {
                for (status, r) in op["responses"].as_object().unwrap() {
                    if status.as_str() >= "400" {
                        let kinds: Vec<&String> = r["content"].as_object().unwrap().keys().collect();
                        assert_eq!(kinds, [PROBLEM], "{method} {path} {status}");
                    }
                }
                assert!(op["responses"].get("503").is_some(), "{method} {path}");
                if method != "get" {
                    writes += 1;
                    let list = op["parameters"].as_array().unwrap();
                    assert!(list.iter().any(|p| p["name"] == HEADER), "{method} {path}");
                }
            }
        }
        assert!(writes > 20);
    }
    /// What the description says a field may be is what the core takes: one step outside is refused at that field, the
    /// limits themselves are not.
    #[test]
    fn described_limits_are_the_real_ones() {
        use bold_stance_car::archetype::shipped_archetypes;
        use bold_stance_car::vehicle::WearFacts;
        use bold_stance_car::vehicle::{AxleFacts, Axles, CarFacts, Sides};
        use bold_stance_trade::aim::shipped_aims;
        use bold_stance_trade::job::VehicleFacts;
        use bold_stance_trade::plan::{
            AxleBase, AxlePlan, CarBase, CarInput, CarPlan, SideReadings, plan_car,
        };
        use bold_stance_units::problem::Problem;
        use serde_json::{Value, json};

        let shape = shipped_archetypes().unwrap().remove(0).geometry;
        let read: SideReadings = serde_json::from_value(json!({
            "height_mm": 500, "angles": {"camber_deg": 0, "caster_deg": 3, "toe_deg": 0},
            "sigma": {"camber_deg": 0.1, "caster_deg": 0.2, "toe_deg": 0.05}
        }))
        .unwrap();
        let aim = shipped_aims().unwrap().remove(0);
        let read = Sides { left: read, right: read };
        let base: AxleBase = serde_json::from_value(json!({
            "geometry": shape, "design_height_mm": 500, "read": read
        }))
        .unwrap();
        let car = |base: CarBase| CarInput { base, plan: CarPlan::unchanged(aim.clone()) };
        let whole = CarBase {
            class_rules: None,
            worked_since: None,
            turned: Axles::default(),
            inspected: Axles::default(),
            wheelbase_mm: 2900.0,
            lock_deg: 35.0,
            steering_ratio: bold_stance_car::vehicle::USUAL_STEERING_RATIO,
            levels: Vec::new(),
            tyre_gain_mm: Axles::default(),
            stands: bold_stance_trade::plan::Stands::default(),
            turns: Vec::new(),
            axles: Axles { front: Some(base.clone()), rear: None },
        };
        let of_axle = |at: &str, list: Vec<Problem>| -> Vec<Problem> {
            list.into_iter().map(|p| Problem { field: p.field.replace(at, ""), ..p }).collect()
        };
        type Check<'a> = Box<dyn Fn(Value) -> Vec<Problem> + 'a>;
        let said = |at: &'static str, input: CarInput| -> Vec<Problem> {
            of_axle(at, plan_car(&input, &[]).err().unwrap_or_default())
        };
        let demo: Value = serde_json::from_str(include_str!("../../../data/demo/shop.json")).unwrap();
        let arrival = demo["jobs"][0]["vehicle"].clone();
        let front = |b: AxleBase| CarBase { axles: Axles { front: Some(b), rear: None }, ..whole.clone() };
        let told = arrival.clone();
        let kinds: [(&str, Value, Check<'_>); 8] = [
            (
                "AxleBase",
                json!(base.clone()),
                Box::new(|v| said("base.axles.front.", car(front(serde_json::from_value(v).unwrap())))),
            ),
            (
                "CarBase",
                json!(whole.clone()),
                Box::new(|v| said("base.", car(serde_json::from_value(v).unwrap()))),
            ),
            (
                "AxlePlan",
                json!(AxlePlan::default()),
                Box::new(|v| {
                    let mut input = car(whole.clone());
                    input.plan.axles.front = serde_json::from_value(v).unwrap();
                    said("plan.axles.front.", input)
                }),
            ),
            (
                "VehicleFacts",
                arrival.clone(),
                Box::new(|v| serde_json::from_value::<VehicleFacts>(v).unwrap().problems()),
            ),
            (
                "Axles_AxleShape/properties/rear",
                arrival["axles"]["rear"].clone(),
                Box::new(move |v| {
                    let mut f = told.clone();
                    f["axles"]["rear"] = v;
                    let f: VehicleFacts = serde_json::from_value(f).unwrap();
                    of_axle("axles.rear.", f.problems())
                }),
            ),
            (
                "Axles_AxleFacts/properties/front",
                json!(AxleFacts::carrying(5000.0)),
                Box::new(|v| serde_json::from_value::<AxleFacts>(v).unwrap().problems("")),
            ),
            (
                "CarFacts",
                json!(CarFacts::default()),
                Box::new(|v| serde_json::from_value::<CarFacts>(v).unwrap().problems("")),
            ),
            (
                "WearFacts",
                json!(WearFacts::default()),
                Box::new(|v| serde_json::from_value::<WearFacts>(v).unwrap().problems("")),
            ),
        ];
        let doc = serde_json::to_value(description()).unwrap();
        let mut seen = 0;
        for (name, good, problems) in kinds {
            assert!(problems(good.clone()).is_empty(), "{name}: {:?}", problems(good.clone()));
            for (field, schema) in doc
                .pointer(&format!("/components/schemas/{name}/properties"))
                .and_then(Value::as_object)
                .unwrap_or_else(|| panic!("{name} is not described"))
            {
                for (end, step) in [("minimum", -1.0), ("maximum", 1.0)] {
                    let Some(limit) = schema[end].as_f64() else { continue };
                    let at = |v: f64| {
                        let mut doc = good.clone();
                        // A whole number is one of either kind.
                        doc[field] = if v.fract() == 0.0 { json!(v as i64) } else { json!(v) };
                        problems(doc).iter().any(|p| p.field == *field)
                    };
                    assert!(!at(limit), "{name}.{field}: {limit} is refused");
                    assert!(at(limit + step), "{name}.{field}: {} is taken", limit + step);
                    seen += 1;
                }
            }
        }
        assert!(seen >= 40, "{seen}");
    }
}
