//! Days with optima proven by another solver, OR-Tools CP-SAT; its version stands in the file. Computed once.

use std::collections::HashMap;

use bodega_core::day::{After, Day, Needs, Task};
use serde_json::Value;

fn count(value: &Value, name: &str) -> u32 {
    u32::try_from(value[name].as_u64().unwrap_or(0)).unwrap()
}

fn needs(value: &Value) -> Needs {
    Needs {
        people: count(value, "people"),
        burners: count(value, "burners"),
        kettles: count(value, "kettles"),
        canners: count(value, "canners"),
    }
}

fn parse(instance: &Value) -> Day {
    let tasks = instance["tasks"].as_array().unwrap();
    let places: HashMap<&str, usize> =
        tasks.iter().enumerate().map(|(place, task)| (task["id"].as_str().unwrap(), place)).collect();
    let after = |value: &Value| After {
        task: places[value["id"].as_str().unwrap()],
        least: value["min_lag_minutes"].as_i64().unwrap(),
        most: value["max_lag_minutes"].as_i64(),
    };
    let task = |value: &Value| Task {
        minutes: count(value, "minutes"),
        uses: needs(&value["uses"]),
        after: value["after"].as_array().unwrap().iter().map(after).collect(),
        between: None,
    };
    Day { has: needs(&instance["resources"]), horizon: 1440, tasks: tasks.iter().map(task).collect() }
}

/// Every instance: its name, its proven optimum (none when it is proven not to fit), the day.
pub fn all() -> Vec<(String, Option<u32>, Day)> {
    let document: Value = serde_json::from_str(include_str!("day_optima.json")).unwrap();
    let instances = document["instances"].as_array().unwrap();
    assert!(instances.len() >= 30 && document["version"].is_string());
    let optimum =
        |instance: &Value| instance["optimum"].as_u64().map(|minutes| u32::try_from(minutes).unwrap());
    instances
        .iter()
        .map(|instance| (instance["name"].as_str().unwrap().to_owned(), optimum(instance), parse(instance)))
        .collect()
}
