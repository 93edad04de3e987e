//! Every number of every calculator, pushed beyond what the description says of it: the two can never part.

use bodega::routes::description_json;
use serde_json::{Value, json};

use crate::common::{empty, post};

/// A good question for each calculator.
fn good_questions() -> Vec<(&'static str, Value)> {
    let vessel = json!({"inner_diameter_mm": 305, "inner_height_mm": 255, "rack_height_mm": 12});
    let jars = json!([{"jar": "quart", "count": 7}, {"jar": "pint", "count": 2}]);
    let line = json!({"product": "whole", "medium": "water", "pack": "raw", "jar": "quart", "count": 14});
    vec![
        (
            "/api/compute/process",
            json!({"product": "whole", "medium": "water", "pack": "raw", "method": "boiling_water", "jar": "quart",
                "altitude_ft": 2640}),
        ),
        (
            "/api/compute/acid",
            json!({"agent": "bottled_lemon_juice", "jars": jars, "pot_dose_tsp": 42, "bottle_ml": 443}),
        ),
        (
            "/api/compute/yield",
            json!({"product": "juice", "thickness": null, "kind": "slicer", "weight_kg": 10.4}),
        ),
        (
            "/api/compute/loads",
            json!({"capacity": {"quart": 7, "pint": 9}, "method": "boiling_water", "altitude_ft": 0,
                "turnaround_minutes": 20, "jars": [line]}),
        ),
        ("/api/compute/canner", json!({"vessel": vessel, "jars": jars, "cover_in": 1.5})),
        ("/api/compute/altitude", json!({"boils_at_c": 98.9, "thermometer_error_c": 0.5})),
        (
            "/api/compute/kettle",
            json!({"start": {"volume_l": 11.356, "brix": 5}, "target": {"fraction_left": 0.666},
                "vessel": {"inner_diameter_mm": 300, "depth_mm": 260}, "heat": {"litres_per_hour": 2},
                "altitude_ft": 2640, "readings": [{"minute": 30, "volume_l": 10.3}, {"minute": 60, "depth_mm": 132}],
                "drains": []}),
        ),
        (
            "/api/compute/day",
            json!({"resources": {"people": 1, "burners": 3, "kettles": 1, "canners": 1}, "horizon_minutes": 600,
            "time_limit_ms": 2000, "tasks": [
                {"id": "wash", "minutes": 50, "uses": {"people": 1}, "after": []},
                {"id": "fill", "minutes": 14, "uses": {"people": 1},
                    "after": [{"id": "wash", "min_lag_minutes": 0, "max_lag_minutes": 30}]},
            ]}),
        ),
        (
            "/api/compute/audit",
            json!({"product": "whole", "medium": "water", "pack": "raw", "method": "boiling_water",
                "altitude_ft": 2640, "minutes": 50, "headspace_in": 0.5, "water_cover_in": 1.5,
                "jars": [{"jar": "quart", "count": 7, "kind": "mason", "lid": "new"}],
                "acid": {"agent": "bottled_lemon_juice", "source": "bottled", "per_jar_tsp": {"quart": 6},
                    "pot_dose_tsp": 42, "bottle_age_months": 1},
                "fruit": {"kind": "paste", "weight_kg": 9.5},
                "additions": [{"what": "salt", "cups": 0.15}],
                "temperatures_c": {"jar": 60, "food": 25, "water": 60},
                "boil": [{"minute": 0, "event": "in"}, {"minute": 21.5, "event": "boil"}],
                "load": [{"product": "sauce", "medium": null, "pack": "hot", "jar": "pint", "minutes": 40}],
                "rest_minutes": 5, "seal_check_hours": 14, "reprocess_after_hours": 3,
                "ph": {"value": 4.2, "temperature_c": 25, "compensated": true, "calibrated_today": true}}),
        ),
    ]
}

/// The schema behind a reference, or the one branch of several that is not null.
fn resolved<'a>(description: &'a Value, schema: &'a Value) -> &'a Value {
    let branches = schema["oneOf"].as_array().or_else(|| schema["anyOf"].as_array());
    let branch = branches.and_then(|all| all.iter().find(|branch| branch["type"] != "null"));
    if let Some(branch) = branch {
        return resolved(description, branch);
    }
    match schema["$ref"].as_str() {
        Some(name) => &description["components"]["schemas"][name.trim_start_matches("#/components/schemas/")],
        None => schema,
    }
}

/// Every bounded number of a body: where it stands, how an error names it, and its bounds.
fn bounded(
    description: &Value,
    (schema, body): (&Value, &Value),
    (pointer, field): (String, String),
    found: &mut Vec<(String, String, f64, f64)>,
) {
    let schema = resolved(description, schema);
    match body {
        Value::Object(fields) => {
            for (name, inner) in fields {
                let named = if field.is_empty() { name.clone() } else { format!("{field}.{name}") };
                let at = (format!("{pointer}/{name}"), named);
                bounded(description, (&schema["properties"][name], inner), at, found);
            }
        }
        Value::Array(items) => {
            for (place, inner) in items.iter().enumerate() {
                let at = (format!("{pointer}/{place}"), format!("{field}[{place}]"));
                bounded(description, (&schema["items"], inner), at, found);
            }
        }
        Value::Number(_) => {
            if let (Some(min), Some(max)) = (schema["minimum"].as_f64(), schema["maximum"].as_f64()) {
                found.push((pointer, field, min, max));
            }
        }
        _ => {}
    }
}

#[actix_web::test]
async fn a_number_beyond_its_described_bounds_is_refused_by_name() {
    let shared = empty();
    let description: Value = serde_json::from_str(&description_json().unwrap()).unwrap();
    let mut tried = 0;
    for (path, good) in good_questions() {
        let (status, answer) = post(&shared, path, good.clone()).await;
        assert_eq!(status, 200, "{path}: {answer}");
        let schema =
            &description["paths"][path]["post"]["requestBody"]["content"]["application/json"]["schema"];
        let mut fields = Vec::new();
        bounded(&description, (schema, &good), (String::new(), String::new()), &mut fields);
        assert!(!fields.is_empty(), "{path} asks for numbers");
        for (pointer, field, min, max) in fields {
            for beyond in [min - 1.0, max + 1.0, -1e12, 1e12] {
                let mut wrong = good.clone();
                let was = wrong.pointer(&pointer).unwrap().is_i64();
                #[expect(clippy::cast_possible_truncation, reason = "bounds of a kitchen")]
                let value = if was { json!(beyond as i64) } else { json!(beyond) };
                *wrong.pointer_mut(&pointer).unwrap() = value;
                let (status, problem) = post(&shared, path, wrong).await;
                assert_eq!(status, 422, "{path} {field} {beyond}: {problem}");
                let said = problem["field"].as_str().unwrap_or_default();
                assert!(
                    said == field || field.starts_with(&format!("{said}.")),
                    "{path} {field} {beyond} is named {said}: {problem}"
                );
                tried += 1;
            }
        }
    }
    assert!(tried > 120, "{tried} numbers were tried");
}

#[actix_web::test]
async fn what_is_no_number_is_refused_by_name_and_nothing_breaks() {
    let shared = empty();
    for (path, good) in good_questions() {
        for (name, inner) in good.as_object().unwrap() {
            for nonsense in [json!("plenty"), json!([[]]), json!({"much": 1}), json!(true)] {
                if std::mem::discriminant(inner) == std::mem::discriminant(&nonsense) {
                    continue;
                }
                let mut wrong = good.clone();
                wrong[name] = nonsense.clone();
                let (status, problem) = post(&shared, path, wrong).await;
                assert!(status == 422 || status == 200, "{path} {name} {nonsense}: {status} {problem}");
                if status == 422 {
                    let field = problem["field"].as_str().unwrap_or_default();
                    assert!(field.starts_with(name.as_str()), "{path}: {name} is named {field:?}: {problem}");
                }
            }
        }
    }
}
