//! Which tested process covers a jar: how long, at what pressure, with what headspace, from which source.
//!
//! The lookup never invents a process. It answers with a tested one, or with a [`Refusal`] that says why there is none
//! and what to do instead.

mod lookup;
mod refusal;
mod rows;
mod words;

pub use lookup::{Caution, ProcessOption, Tested, at_pounds, column, headspace, look_up, tables};
pub use refusal::{Refusal, RefusalCode};
pub use rows::{Gauge, PressureRow, Tables, WaterRow};
pub use words::{Medium, MediumError, Method, Pack, Product, Query, STEAM_LIMIT, check_medium};
