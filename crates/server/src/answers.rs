//! Every answer that may come beside the one that was asked for, in the API's description: what the door, the disk and the
//! reading of a request say is the same everywhere, and stands in one place.

use serde_json::{Map, Value, json};

/// What a problem travels as (RFC 9457).
const PROBLEM_KIND: &str = "application/problem+json";

fn problem(words: &str) -> Value {
    json!({
        "description": words,
        "content": {PROBLEM_KIND: {"schema": {"$ref": "#/components/schemas/Problem"}}},
    })
}

/// Statuses of an operation beside its own, each with what it says.
fn beside(operation: &Value, is_change: bool) -> Vec<(&'static str, &'static str)> {
    let has = |place: &str| {
        let parameters = operation.get("parameters").and_then(Value::as_array);
        parameters.is_some_and(|all| all.iter().any(|parameter| parameter["in"] == place))
    };
    let has_body = operation.get("requestBody").is_some();
    let mut all = vec![
        ("401", "A device of the home network that is not let in"),
        ("421", "A name that the server does not go by"),
        ("503", "The disk refuses to read or write"),
    ];
    if is_change {
        all.extend([
            ("403", "A page of another site"),
            ("409", "It does not go with what the records say"),
            ("507", "The disk is full; nothing was written"),
        ]);
    }
    if has_body {
        all.extend([
            ("400", "The body cannot be read"),
            ("413", "The body is larger than what is taken"),
            ("415", "The body is not what the address takes"),
        ]);
    }
    if has("path") || has_body {
        all.push(("404", "No such address, or no such record"));
    }
    if has_body || has("query") || has("header") {
        all.push(("422", "A field is missing, unknown, of the wrong kind, or breaks a rule"));
    }
    all
}

/// Gives the problems among an operation's own answers the kind that they travel as.
fn rename_problems(responses: &mut Map<String, Value>) {
    for (status, response) in responses.iter_mut() {
        let is_problem = status.starts_with('4') || status.starts_with('5');
        if let Some(content) =
            response.get_mut("content").and_then(Value::as_object_mut).filter(|_| is_problem)
            && let Some(body) = content.remove("application/json")
        {
            content.insert(PROBLEM_KIND.to_owned(), body);
        }
    }
}

/// Writes them into the API's description.
pub fn describe(description: &mut Value) {
    let Some(paths) = description.get_mut("paths").and_then(Value::as_object_mut) else { return };
    for path in paths.values_mut().filter_map(Value::as_object_mut) {
        for (method, operation) in path.iter_mut() {
            let beside = beside(operation, method != "get");
            let Some(responses) = operation.get_mut("responses").and_then(Value::as_object_mut) else {
                continue;
            };
            rename_problems(responses);
            for (status, words) in beside {
                responses.entry(status).or_insert_with(|| problem(words));
            }
        }
    }
}
