//! The towel: lids, rescues, jars kept cold.

pub mod routes;
pub mod view;
