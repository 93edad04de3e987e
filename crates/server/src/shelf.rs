//! The shelf: jars, labels, records, next season.

pub mod books;
pub mod cold;
pub mod day_books;
pub(crate) mod label_drawing;
pub(crate) mod label_pdf;
pub mod label_svg;
pub mod labels;
pub mod pantry;
pub mod record;
pub mod record_view;
pub mod routes;
pub mod view;
