//! What every published table has: a source beside each row, and one reader.

pub mod reader;
pub mod source;
