//! Labels as SVG in millimetres, which the browser shows and prints.

use std::fmt::Write;

use serde::Serialize;
use uom::si::length::millimeter;
use utoipa::ToSchema;

use crate::qr;
use crate::shelf::label_drawing::{Anchor, Drawing, EDGE_MM, Mark, Placed};

/// Typeface of the labels as the browser knows it.
const FAMILY: &str = "Atkinson Hyperlegible Next Variable, Atkinson Hyperlegible Next, sans-serif";

/// The pages, ready to print.
#[derive(Debug, Serialize, ToSchema)]
pub struct LabelPages {
    /// One SVG for each page, in millimetres.
    pub pages: Vec<String>,
    /// Labels in a row.
    pub columns: usize,
    /// Rows on a page.
    pub rows: usize,
    /// Width of the paper in millimetres.
    pub paper_width_mm: f64,
    /// Height of the paper in millimetres.
    pub paper_height_mm: f64,
}

/// A text as it stands in a document of tags.
pub(crate) fn escaped(text: &str) -> String {
    text.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;")
}

fn drawn(mark: &Mark) -> String {
    let edge = format!("fill=\"white\" stroke=\"black\" stroke-width=\"{EDGE_MM}\"");
    match mark {
        Mark::Circle { x, y, r } => format!("<circle cx=\"{x:.3}\" cy=\"{y:.3}\" r=\"{r:.3}\" {edge}/>"),
        Mark::Rectangle { x, y, width, height, corner } => format!(
            "<rect x=\"{x:.3}\" y=\"{y:.3}\" width=\"{width:.3}\" height=\"{height:.3}\" rx=\"{corner}\" {edge}/>"
        ),
        Mark::Code { code, x, y, side } => {
            #[allow(clippy::cast_precision_loss)] // a few dozen modules
            let module = side / code.width() as f64;
            format!("<path d=\"{}\" fill=\"black\"/>", qr::path(code, *x, *y, module))
        }
        Mark::Words { words, x, y, size, bold, anchor } => format!(
            "<text x=\"{x:.3}\" y=\"{y:.3}\" font-family=\"{FAMILY}\" font-size=\"{size:.3}\" font-weight=\"{}\" \
             text-anchor=\"{}\" fill=\"black\">{}</text>",
            if *bold { 700 } else { 400 },
            match anchor {
                Anchor::Start => "start",
                Anchor::Middle => "middle",
            },
            escaped(words)
        ),
    }
}

fn page((width, height): (f64, f64), labels: &[Placed]) -> String {
    let mut svg = format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{width}mm\" height=\"{height}mm\" viewBox=\"0 0 {width} {height}\">"
    );
    for (spot, marks) in labels {
        let (x, y) = (spot.x.get::<millimeter>(), spot.y.get::<millimeter>());
        let label: String = marks.iter().map(drawn).collect();
        let _ = write!(svg, "<g transform=\"translate({x:.3} {y:.3})\" data-label=\"\">{label}</g>");
    }
    svg.push_str("</svg>");
    svg
}

impl LabelPages {
    /// Of a sheet.
    pub(crate) fn of(drawing: &Drawing) -> Self {
        Self {
            pages: drawing.pages.iter().map(|labels| page(drawing.paper, labels)).collect(),
            columns: drawing.columns,
            rows: drawing.rows,
            paper_width_mm: drawing.paper.0,
            paper_height_mm: drawing.paper.1,
        }
    }
}
