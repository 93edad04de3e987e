//! The shelf: jars, labels, records, next season.

pub mod books;
pub mod cold;
pub mod day_books;
pub mod label_drawing;
pub mod labels;
pub mod pantry;
pub mod record;
pub mod record_view;
pub mod routes;
pub mod view;
