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

/// The hands and each product, the number in the ids, as sets of tasks.
fn together(instance: &Value, day: &Day) -> Vec<Vec<usize>> {
    let mut sets = vec![(0..day.tasks.len()).filter(|task| day.tasks[*task].uses.people > 0).collect()];
    let ids = instance["tasks"].as_array().unwrap().iter().map(|task| task["id"].as_str().unwrap());
    let products: Vec<&str> =
        ids.map(|id| id.trim_start_matches(char::is_alphabetic).split('.').next().unwrap()).collect();
    let mut seen: Vec<&str> = products.clone();
    seen.sort_unstable();
    seen.dedup();
    sets.extend(
        seen.iter().map(|product| {
            (0..products.len()).filter(|task| products[*task] == *product).collect::<Vec<_>>()
        }),
    );
    sets
}

/// A day that the other solver has worked out.
pub struct Instance {
    pub name: String,
    /// Its proven length; none when it is proven not to fit.
    pub optimum: Option<u32>,
    /// The proven least spread at that length, where it was computed.
    pub least_spread: Option<u32>,
    /// The sets that the spread is of.
    pub together: Vec<Vec<usize>>,
    pub day: Day,
}

/// Every instance.
pub fn all() -> Vec<Instance> {
    let document: Value = serde_json::from_str(include_str!("day_optima.json")).unwrap();
    let instances = document["instances"].as_array().unwrap();
    assert!(instances.len() >= 30 && document["version"].is_string());
    let minutes = |value: &Value| value.as_u64().map(|minutes| u32::try_from(minutes).unwrap());
    let read = |instance: &Value| {
        let day = parse(instance);
        Instance {
            name: instance["name"].as_str().unwrap().to_owned(),
            optimum: minutes(&instance["optimum"]),
            least_spread: minutes(&instance["least_spread"]),
            together: together(instance, &day),
            day,
        }
    };
    instances.iter().map(read).collect()
}

/// A long day with two canners.
pub struct LongDay {
    pub name: String,
    /// What another solver found in three seconds, and what it proved.
    pub found: u32,
    pub bound: u32,
    pub day: Day,
}

/// Days of fifty to a hundred and fifty tasks, of which none was solved.
pub fn long_days() -> Vec<LongDay> {
    let document: Value = serde_json::from_str(include_str!("two_canners.json")).unwrap();
    let read = |instance: &Value| LongDay {
        name: instance["name"].as_str().unwrap().to_owned(),
        found: count(instance, "found"),
        bound: count(instance, "bound"),
        day: Day { horizon: 1800, ..parse(instance) },
    };
    document["instances"].as_array().unwrap().iter().map(read).collect()
}
