//! When to start what: tasks with their needs, laid out over hands, burners, kettles and canners so that the day is short.
//!
//! One narrow function, [`lay_out`]: a list scheduler gives the first plan at once, a constraint solver shortens it and
//! proves how short it can be, then takes out what waiting it can, and a checker passes every plan before anybody sees
//! it. Minutes are whole and count from the start of the day.

mod bound;
mod budget;
mod check;
mod keep;
pub mod lanes;
mod layout;
mod list;
mod near;
mod order;
pub mod overnight;
pub mod pace;
mod search;
mod shift;
pub mod sink;
mod task;
mod usage;
pub mod work;

pub use budget::Budget;
pub use check::faults;
pub use layout::{Layout, Limits, Status, Wish, lay_out, shortest};
pub use near::spread;
pub use shift::{earlier_starts, later_starts, near_minute, with_reserve};
pub use task::{After, Day, Needs, Task};
